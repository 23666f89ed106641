# frozen_string_literal: true

module Mordant
  module Area
    # A Gaussian as three extended box filters along each axis; edges go on as they end.
    #
    # Source: Gwosdek, Grewenig, Bruhn, Weickert 2011, "Theoretical foundations of Gaussian
    # convolution by extended box filtering", equations 3 to 7.
    # Values are rounded to multiples of QUANTUM and held to within LARGEST of 0; NaN becomes 0.
    class Boxes
      PASSES = 3
      QUANTUM = 2.0**-22
      LARGEST = 65_504.0 # of a half float; row sums of such multiples stay whole in a double

      # @param sigma [Float] standard deviation in pixels, above 0
      def initialize(sigma)
        variance = sigma**2 / PASSES
        @radius = r = (0.5 * Math.sqrt(12.0 * variance + 1.0) - 0.5).floor
        @end = (2 * r + 1) * (r * (r + 1) - 3.0 * variance) / (6.0 * (variance - (r + 1)**2))
        @width = 2 * r + 1
        freeze
      end

      # @return [Integer] pixels around one that it depends on
      def margin = PASSES * (@radius + 1)

      # @param rows [Numo::SFloat] [height, width]; never written to
      # @return [Numo::SFloat] [height, width]
      def call(rows)
        across = PASSES.times.reduce(whole_numbers(rows)) { |held, _| boxed(held) }
        down = PASSES.times.reduce(across.transpose.dup) { |held, _| boxed(held) }
        Numo::SFloat.cast(down.transpose.dup * QUANTUM)
      end

      private

      def whole_numbers(rows)
        values = Numo::DFloat.cast(rows)
        values[values.isnan] = 0.0
        (values.clip(-LARGEST, LARGEST).inplace * (1 / QUANTUM)).out_of_place!.round
      end

      # Along rows: (sum over the radius + end * (one more on either side)) / what all weigh.
      def boxed(rows)
        height, width = rows.shape
        pad = @radius + 1
        padded = Numo::DFloat.zeros(height, width + 2 * pad + 1)
        padded[true, (1 + pad)...(1 + pad + width)] = rows
        padded[true, 1..pad] = rows[true, 0..0]
        padded[true, (1 + pad + width)..] = rows[true, (width - 1)..]
        ends = padded[true, 1..width] + padded[true, (1 + 2 * pad)..]
        sums = padded.cumsum(axis: 1)
        within = sums[true, (@width + 1)...(@width + 1 + width)] - sums[true, 1..width]
        ends.inplace * @end
        within.inplace + ends
        within.inplace * (1.0 / (@width + 2 * @end))
        within.out_of_place!.round
      end
    end
  end
end
