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
      # @param passes [Integer] boxes; one is a mean
      def initialize(sigma, passes: PASSES)
        @passes = passes
        variance = sigma**2 / passes
        @radius = r = (0.5 * Math.sqrt(12.0 * variance + 1.0) - 0.5).floor
        @end = (2 * r + 1) * (r * (r + 1) - 3.0 * variance) / (6.0 * (variance - (r + 1)**2))
        @width = 2 * r + 1
        freeze
      end

      # @return [Integer] pixels around one that it depends on
      def margin = @passes * (@radius + 1)

      # @param rows [Numo::SFloat] [height, width]; never written to
      # @return [Numo::SFloat] [height, width]
      def call(rows)
        return Beside.call(rows, @end, @passes) if @radius.zero? && Beside.worth?(*rows.shape)
        return Running.new(@radius, @end, @passes).call(rows) if Running.worth?(*rows.shape)

        across = by_bands(rows) { |band| whole_numbers(band) }
        down = by_bands(across.transpose.dup) { |band| band }
        Numo::SFloat.cast(down.transpose.dup * QUANTUM)
      end

      private

      # Some rows after the other, which stay near the processor.
      def by_bands(rows)
        height, width = rows.shape
        out = Numo::DFloat.new(height, width).allocate
        step = [Pointwise::TILE / width, 1].max
        (0...height).step(step) do |top|
          band = top...[top + step, height].min
          out[band, true] = @passes.times.reduce(yield(rows[band, true].dup)) { |held, _| boxed(held) }
        end
        out
      end

      def whole_numbers(rows)
        values = Numo::DFloat.cast(rows)
        values[values.isnan] = 0.0 if values.sum.nan?
        rounded(values.clip(-LARGEST, LARGEST).inplace * (1 / QUANTUM))
      end

      # To the nearest whole number, halves to even ones: what is added leaves no place behind the point.
      #
      # @param values [Numo::DFloat] used up
      def rounded(values)
        values.inplace + HALVES
        (values.inplace - HALVES).out_of_place!
      end
      HALVES = 1.5 * 2.0**52

      # Along rows: (sum over the radius + end * (one more on either side)) / what all weigh.
      def boxed(rows)
        height, width = rows.shape
        pad = @radius + 1
        padded = Numo::DFloat.new(height, width + 2 * pad + 1).allocate
        padded[true, 0] = 0.0
        padded[true, (1 + pad)...(1 + pad + width)] = rows
        padded[true, 1..pad] = rows[true, 0..0]
        padded[true, (1 + pad + width)..] = rows[true, (width - 1)..]
        ends = padded[true, 1..width] + padded[true, (1 + 2 * pad)..]
        sums = padded.cumsum(axis: 1)
        within = sums[true, (@width + 1)...(@width + 1 + width)] - sums[true, 1..width]
        ends.inplace * @end
        within.inplace + ends
        within.inplace * (1.0 / (@width + 2 * @end))
        rounded(within)
      end
    end
  end
end
