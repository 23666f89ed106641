# frozen_string_literal: true

module Mordant
  class Declared
    # A smooth curve through points that never overshoots them: between neighbours that
    # rise it rises, between equal ones it is flat.
    #
    # Source: Fritsch and Butland 1984, "A method for constructing local monotone
    # piecewise cubic interpolants". Immutable.
    class Spline
      # @param points [Array<Array<Float>>] places rising
      # @param round [Boolean] place 1.0 is place 0.0 again, as of hues
      # @param straight [Boolean] beyond the ends the curve goes straight on; else it stays
      def initialize(points, round: false, straight: false)
        all = round ? wound(points) : points
        @x, @y = all.transpose
        @round, @straight = round, straight
        @slopes = slopes.freeze
        freeze
      end

      # @param x [Numo::DFloat]
      # @return [Numo::DFloat]
      def call(x)
        x -= x.floor if @round
        return x * 0.0 + @y.first if @x.size == 1

        inside = (0..@x.size - 2).reduce(x * 0.0 + @y.first) { |sum, i| sum + piece(x, i) }
        @straight ? inside + (x - @x.first).clip(nil, 0.0) * @slopes.first + (x - @x.last).clip(0.0, nil) * @slopes.last : inside
      end

      private

      # The points three times over, a turn apart.
      def wound(points) = [-1.0, 0.0, 1.0].flat_map { |turn| points.map { |x, y| [x + turn, y] } }

      # What the curve rises by from point i on, up to x.
      def piece(x, i)
        width = @x[i + 1] - @x[i]
        u = ((x - @x[i]) / width).clip(0.0, 1.0)
        rise = @y[i + 1] - @y[i]
        a, b = @slopes[i] * width, @slopes[i + 1] * width
        u * (u * (u * (a + b - 2 * rise) + (3 * rise - 2 * a - b)) + a)
      end

      def slopes
        return [0.0] if @x.size == 1

        secants = @x.each_cons(2).zip(@y.each_cons(2)).map { |(x0, x1), (y0, y1)| (y1 - y0) / (x1 - x0) }
        widths = @x.each_cons(2).map { |a, b| b - a }
        inner = secants.each_cons(2).zip(widths.each_cons(2)).map { |(s0, s1), (h0, h1)| mean(s0, s1, h0, h1) }
        [secants.first, *inner, secants.last]
      end

      def mean(before, after, width_before, width_after)
        return 0.0 unless before * after > 0

        share = (width_before + 2 * width_after) / (3.0 * (width_before + width_after))
        before * after / (share * after + (1 - share) * before)
      end
    end
  end
end
