# frozen_string_literal: true

module Mordant
  module Track
    # Where about a part lies in another picture: its values against those of all places around a guess, whole
    # pixels of a coarse level apart, by their correlation.
    class Search
      FURTHEST = 96 # pixels of the first level, either way
      NEARER = 0.1 # of correlation that the farthest place has to be likelier by
      MOST = 400 # pixels of the part that are compared
      KEPT = 4 # places that are worth a closer look

      # @param level [Integer]
      # @param x [Numo::SFloat] places of the part's pixels, from the middle
      # @param values [Numo::SFloat]
      def initialize(level, x, y, values)
        some = (0...x.size).step((x.size / MOST.to_f).ceil).to_a
        @level, @x, @y = level, x[some].dup, y[some].dup
        @values = values[some].dup
        @values -= @values.mean
        @spread = Math.sqrt((@values * @values).sum)
        reach = [FURTHEST / 2**level, 2].max
        @shifts = (-reach..reach).to_a.product((-reach..reach).to_a)
        @far = Numo::DFloat.cast(@shifts.map { |across, down| NEARER * (across**2 + down**2) / reach**2 })
      end

      # @param pyramid [Pyramid]
      # @param guess [Map] in pixels
      # @return [Array<Map>] the likeliest first, not next to each other
      def places(pyramid, guess)
        likeness = likeness(pyramid, guess).to_a
        order = likeness.each_index.sort_by { |index| -likeness[index] }
        found = order.each_with_object([]) do |index, kept|
          break kept if kept.size == KEPT

          kept << index if kept.none? { |other| @shifts[index].zip(@shifts[other]).all? { |a, b| (a - b).abs <= 1 } }
        end
        found.map { |index| @shifts[index].then { |across, down| Map.similarity(across * 2.0**@level, down * 2.0**@level) * guess } }
      end

      private

      # @return [Numo::DFloat] of each shift, less what it is away
      def likeness(pyramid, guess)
        plane = pyramid.plane(@level)
        rows, columns = plane.shape
        x, y = guess.call(@x, @y)
        across, down = [[x, pyramid.width], [y, pyramid.height]].map { |place, size| Numo::Int64.cast(((place + size / 2.0) * (0.5**@level) - 0.5).round).reshape(1, place.size) }
        right, low = Numo::Int64.cast(@shifts.map(&:first)).reshape(@shifts.size, 1), Numo::Int64.cast(@shifts.map(&:last)).reshape(@shifts.size, 1)
        seen = plane.reshape(rows * columns)[(down + low).clip(0, rows - 1) * columns + (across + right).clip(0, columns - 1)].dup
        seen -= seen.mean(axis: 1).reshape(@shifts.size, 1)
        spread = Numo::NMath.sqrt((seen * seen).sum(axis: 1)) * @spread
        (seen * @values.reshape(1, @values.size)).sum(axis: 1) / (spread + 1e-9) - @far
      end
    end
  end
end
