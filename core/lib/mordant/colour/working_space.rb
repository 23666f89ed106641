# frozen_string_literal: true

module Mordant
  module Colour
    # The space grades are made in: a log encoding, the linear one with the same
    # primaries, and its tone axis.
    #
    # The tone axis runs from 0.0 at no light to 1.0 where the standard SDR
    # rendering reaches display white, 6.5 stops above mid grey; lift, gamma,
    # gain, offset and the staves count in it.
    class WorkingSpace
      STOPS_TO_WHITE = 6.5
      MID_GREY = 0.18

      # @return [String] encoding ids
      attr_reader :log, :linear
      # @return [Float] code values
      attr_reader :black, :middle, :white

      def self.default = (@default ||= new(log: "acescct", linear: "acescg"))

      def initialize(log:, linear:)
        @log, @linear = log, linear
        @transfer = Encoding.fetch(log).transfer
        @black, @middle, @white = [0.0, MID_GREY, MID_GREY * 2**STOPS_TO_WHITE].map { |light| encode(light) }
        freeze
      end

      # @param domain [Symbol] :log or :linear
      # @return [String] encoding id
      def encoding_of(domain) = {log:, linear:}.fetch(domain)

      # @param light [Float] linear
      # @return [Float] code value
      def encode(light) = @transfer.encode(Numo::DFloat[light])[0]

      # @param code [Float]
      # @return [Float] linear
      def decode(code) = @transfer.decode(Numo::DFloat[code])[0]

      # @return [#encode, #decode]
      attr_reader :transfer

      # @return [Array<Float>] of a linear red, green, blue; they add up to 1
      def luminance_weights = Encoding.fetch(linear).primaries.to_xyz[1]

      def to_h = {log:, linear:, black:, middle:, white:}
    end
  end
end
