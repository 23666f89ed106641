# frozen_string_literal: true

module Mordant
  module Scopes
    # What instruments count in a picture, without the picture. What is counted in bands of one, as wide as it, adds up to
    # what is counted in all of it.
    class Tally
      # @return [Integer] pixels across and down
      attr_reader :width, :height
      # @return [String] encoding id
      attr_reader :encoding

      # @param signal [Signal]
      # @param wanted [Hash] see Instruments.checked
      # @return [Tally]
      # @raise [ParameterError] of an odd zoom
      def self.of(signal, wanted)
        found = Signal::CHANNELS.to_h { |channel| [[:counts, channel], signal.counts(channel)] }
        Signal::CHANNELS.each { |channel| found[[:trace, channel]] = signal.trace(channel) } if wanted["traces"]
        found[[:pairs, wanted["vectorscope"]]] = signal.pairs(wanted["vectorscope"]) if wanted["vectorscope"]
        found[[:cells]] = signal.cells if wanted["solid"]
        new(encoding: signal.encoding, width: signal.width, height: signal.height, found:)
      end

      # @param found [Hash{Array => Numo::UInt32}] by the name and the arguments of what is asked for
      def initialize(encoding:, width:, height:, found:)
        @encoding, @width, @height, @found = encoding, width, height, found
      end

      # @param other [Tally] of another band, for which the same was wanted
      # @return [Tally] of both
      def +(other)
        Tally.new(encoding:, width:, height: height + other.height, found: found.merge(other.found) { |_, one, another| one + another })
      end

      # @return [Integer] pixels
      def size = width * height

      # @return [Array<Float>] of red, green and blue in luma
      def weights = Colour.encoding(encoding).luma_weights

      # @!method counts(channel)
      # @!method trace(channel)
      # @!method pairs(zoom)
      # @!method cells
      #   As of Signal.
      %i[counts trace pairs cells].each { |name| define_method(name) { |*which| found.fetch([name, *which]) } }

      protected

      attr_reader :found
    end
  end
end
