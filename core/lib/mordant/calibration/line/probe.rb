# frozen_string_literal: true

module Mordant
  module Calibration
    module Line
      # A probe at the other end of a line.
      class Probe
        PATIENCE = 60 # seconds: probes look long at dark patches

        # @param address [String]
        # @raise [DeviceError, ParameterError]
        def initialize(address) = @client = Client.new(address, device: "probe")

        def name = @client.name

        # @return [Array<Float>] XYZ
        # @raise [Refused, DeviceError]
        def read = @client.numbers("READ", patience: PATIENCE)

        def close = @client.close
      end
    end
  end
end
