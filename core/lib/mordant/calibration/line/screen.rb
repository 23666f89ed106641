# frozen_string_literal: true

module Mordant
  module Calibration
    module Line
      # A screen at the other end of a line.
      class Screen
        # @param address [String]
        # @raise [DeviceError, ParameterError]
        def initialize(address) = @client = Client.new(address, device: "screen")

        def name = @client.name

        # @param sent [Array<Float>] shares of the greatest code
        def show(sent) = @client.ask("SHOW #{sent.map { |one| one.round(6) }.join(" ")}")

        # @param seconds [Float]
        # @return [Array<Float>] mean XYZ, of a stand-in: what a probe before it sees
        def light(seconds) = @client.numbers("LIGHT #{seconds}")

        def close = @client.close
      end
    end
  end
end
