# frozen_string_literal: true

module Mordant
  module Lut
    # Curves after which the middle channel is put back to its share of the way from
    # the smallest to the largest, so that hue stays.
    #
    # Source: Academy S-2014-006, LUT1D, hueAdjust "dw3".
    class KeptHue
      # @param curves [Pointwise::Chain]
      def initialize(curves)
        @curves = curves
      end

      def merge(_following) = nil

      def tabulate = self

      # @param planes [Array<Numo::NArray>]
      # @return [Array<Numo::NArray>]
      def call(planes)
        before = planes.map(&:dup)
        after = Pointwise::Chain.reduce(@curves.operations, planes)
        low, high = ends(before)
        span = high - low
        from, to = ends(after)
        shares = before.map { |plane| (plane - low) / span.clip(1e-30, nil) }
        grey = span <= 0.0
        after.zip(shares).map { |plane, share| Colour::Piecewise.select(grey, plane, from + (to - from) * share) }
      end

      private

      def ends(planes) = [planes.reduce { |a, b| a.clip(nil, b) }, planes.reduce { |a, b| a.clip(b, nil) }]
    end
  end
end
