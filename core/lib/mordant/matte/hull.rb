# frozen_string_literal: true

module Mordant
  module Matte
    # Outlines in a plane that hold points, or leave some out.
    module Hull
      module_function

      # @param points [Array<Array(Float, Float)>]
      # @param room [Float] around them
      # @return [Array<Array(Float, Float)>] corners of the least outline without dents (Andrew 1979, monotone chains)
      def around(points, room)
        all = room.zero? ? points : points.flat_map { |x, y| (0...8).map { |k| [x + room * Math.cos(k * Math::PI / 4), y + room * Math.sin(k * Math::PI / 4)] } }
        sorted = all.uniq.sort
        return sorted if sorted.size < 3

        [sorted, sorted.reverse].flat_map { |some| chain(some)[0...-1] }
      end

      def chain(points)
        points.each_with_object([]) do |point, made|
          made.pop while made.size > 1 && turn(made[-2], made[-1], point) <= 0
          made << point
        end
      end

      def turn(a, b, c) = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])

      # @param outline [Array<Array(Float, Float)>]
      # @param patch [Array<Array(Float, Float)>] that is left out
      # @param room [Float] and so much around it
      # @return [Array<Array(Float, Float)>] of the outline, what lies before the patch as seen from its middle
      def cut(outline, patch, room)
        return outline if outline.size < 3

        middle, other = [outline, patch].map { |points| points.transpose.map { |values| values.sum / values.size } }
        way = other.zip(middle).map { |a, b| a - b }
        long = Math.hypot(*way)
        return outline if long.zero?

        way = way.map { |one| one / long }
        along = ->(point) { point.zip(way).sum { |a, b| a * b } }
        kept(outline, along, patch.map(&along).min - room)
      end

      # What lies below a limit (Sutherland and Hodgman 1974, one edge of a window).
      def kept(outline, along, limit)
        made = outline.each_index.flat_map do |index|
          from, to = outline[index - 1], outline[index]
          a, b = along[from] - limit, along[to] - limit
          crossing = from.zip(to).map { |p, q| p + (q - p) * a / (a - b) } if (a.positive?) ^ (b.positive?)
          [crossing, (to unless b.positive?)].compact
        end
        (made.size < 3) ? outline : made
      end
    end
  end
end
