# frozen_string_literal: true

module Mordant
  module Scopes
    # How often each pair of colour differences occurs.
    #
    # Shape: Numo::UInt32 [SIZE, SIZE], row by Cr from -HALF / zoom up, column by Cb. What
    # lies beyond the edges counts at them.
    module Vectorscope
      SIZE = 256
      # Reach of the axes; colours of the gamut lie within 0.5.
      HALF = 0.56
      ZOOMS = [1, 2, 4].freeze
      TARGETS = {"R" => [1, 0, 0], "Y" => [1, 1, 0], "G" => [0, 1, 0], "C" => [0, 1, 1], "B" => [0, 0, 1], "M" => [1, 0, 1]}.freeze
      LEVELS = [0.75, 1.0].freeze

      module_function

      # @param signal [Signal]
      # @param zoom [Integer] one of ZOOMS
      # @return [Numo::UInt32]
      # @raise [ParameterError]
      def counts(signal, zoom: 1) = signal.pairs(zoom)

      # @param weights [Array<Float>] of luma
      # @param zoom [Integer] one of ZOOMS
      # @return [Pointwise::Counted] of planes each pair's place in #counts
      # @raise [ParameterError]
      def counted(weights, zoom)
        raise ParameterError.new(path: "zoom", expected: ZOOMS.join(", "), found: zoom) unless ZOOMS.include?(zoom)

        (@counted ||= {})[[weights, zoom]] ||= Pointwise::Counted.new(3, SIZE * SIZE) do |*planes|
          column, row = Signal.differences(planes, Signal.luma(planes, weights), weights).map { |difference| bins(difference, zoom) }
          [[row * SIZE + column]]
        end
      end

      # @param difference [Numo::SFloat, Pointwise::Recorded]
      # @return [Numo::SFloat, Pointwise::Recorded] whole numbers of 0...SIZE
      def bins(difference, zoom)
        place = difference * (zoom * (SIZE - 1) / (2 * HALF)) + SIZE / 2.0
        Pointwise.whole(Pointwise.held(place, 0.0).clip(0.0, SIZE - 1), SIZE - 1)
      end

      # Where the bars of a signal with these weights stand.
      #
      # @param weights [Array<Float>]
      # @return [Array<Hash>] name, level, cb and cr
      def targets(weights)
        LEVELS.product(TARGETS.to_a).map do |level, (name, rgb)|
          luma = rgb.zip(weights).sum { |value, weight| value * weight }
          {name:, level:, cb: ((rgb[2] - luma) * level * 0.5 / (1 - weights[2])).round(5), cr: ((rgb[0] - luma) * level * 0.5 / (1 - weights[0])).round(5)}
        end
      end
    end
  end
end
