# frozen_string_literal: true

module Mordant
  module Matte
    # A closed line of straight pieces, in pixels from the picture's upper left corner, and how far
    # pixels are from it. What winds round a pixel, however often, holds it.
    class Ring
      FINEST = 48.0 # pixels that a distance may reach before it is made on a coarser grid and drawn straight between

      # @param points [Array<Array<Float>>] across and down
      # @param feathers [Array<Array<Float>>, nil] for each point two lengths that are told with the distance
      def initialize(points, feathers = nil)
        @points, @feathers = points, feathers
        @pieces = points.each_index.map { |index| [index, (index + 1) % points.size] }.reject { |a, b| points[a] == points[b] }
      end

      # @param window [Grade::Window]
      # @param furthest [Float] distance in pixels; what is farther is said to be that far
      # @return [Numo::SFloat] [n] signed distance, negative inside
      def distance(window, furthest:) = sided(near(window, furthest).first, window)

      # @return [Array<Numo::SFloat>] [n] signed distance, and the two lengths at the nearest place of the line
      def feathered(window, furthest:)
        distance, *lengths = near(window, furthest)
        [sided(distance, window), *lengths]
      end

      # @param window [Grade::Window]
      # @return [Numo::Bit] [n] pixels whose middle is within
      def within(window)
        crossings = Numo::Int32.zeros(window.height * (window.width + 1))
        @pieces.each { |a, b| cross(crossings, @points[a], @points[b], window) }
        crossings.reshape(window.height, window.width + 1).cumsum(axis: 1)[true, 0...window.width].dup.reshape(window.size).ne(0)
      end

      private

      # Counts where rows are crossed, one up when downwards.
      def cross(crossings, from, to, window)
        (x0, y0), (x1, y1) = from, to
        return if y0 == y1

        first, past = [y0, y1].minmax.map { |y| (y - 0.5).ceil.clamp(window.top, window.top + window.height) }
        return if first >= past

        rows = Numo::Int64.new(past - first).seq(first)
        across = (Numo::DFloat.cast(rows) + 0.5 - y0) * ((x1 - x0) / (y1 - y0)) + x0
        columns = (across - 0.5).ceil.clip(window.left, window.left + window.width)
        at = (rows - window.top) * (window.width + 1) + Numo::Int64.cast(columns) - window.left
        crossings[at] = crossings[at].dup + ((y1 > y0) ? 1 : -1)
      end

      def sided(distance, window)
        inside = Numo::SFloat.cast(within(window))
        distance * (inside * -2.0 + 1.0)
      end

      # @return [Array<Numo::SFloat>] [n] distance without sign, and lengths
      def near(window, furthest)
        coarse = 2**[Math.log2(furthest / FINEST).ceil, 0].max
        return exact(window.left + 0.5, window.top + 0.5, 1.0, window.width, window.height, furthest).map { |plane| plane.reshape(window.size) } if coarse == 1

        left, top = window.left / coarse, window.top / coarse
        wide, high = (window.left + window.width) / coarse - left + 2, (window.top + window.height) / coarse - top + 2
        exact((left * coarse).to_f, (top * coarse).to_f, coarse.to_f, wide, high, furthest).map { |plane| enlarged(plane, coarse, window, left, top) }
      end

      # Of places on a grid, step pixels apart.
      def exact(left, top, step, width, height, furthest)
        squares = Numo::SFloat.new(height, width).fill(furthest**2)
        lengths = @feathers && Array.new(2) { |side| Numo::SFloat.new(height, width).fill(@feathers.first[side]) }
        @pieces.each do |a, b|
          box = box(@points[a], @points[b], left, top, step, width, height, furthest) or next
          touch(squares, lengths, a, b, box, left, top, step)
        end
        [Numo::SFloat::Math.sqrt(squares), *lengths]
      end

      def box(from, to, left, top, step, width, height, furthest)
        ends = from.zip(to, [left, top], [width, height]).map do |a, b, first, count|
          low, high = [a, b].minmax
          ((low - furthest - first) / step).floor.clamp(0, count)...(((high + furthest - first) / step).ceil + 1).clamp(0, count)
        end
        ends if ends.all? { |range| range.size.positive? }
      end

      # The square of the distance to a piece, wherever it is the least so far.
      def touch(squares, lengths, a, b, (columns, rows), left, top, step)
        (x0, y0), (x1, y1) = @points[a], @points[b]
        dx, dy = x1 - x0, y1 - y0
        # Places in the picture first, which are exact: whatever window they are in, the same bits.
        across = ((Numo::SFloat.new(1, columns.size).seq + columns.begin) * step + left) - x0
        down = ((Numo::SFloat.new(rows.size, 1).seq + rows.begin) * step + top) - y0
        along = ((across * dx + down * dy) * (1.0 / (dx * dx + dy * dy))).clip(0.0, 1.0)
        off, aside = across - along * dx, down - along * dy
        found = off * off + aside * aside
        before = squares[rows, columns].dup
        squares[rows, columns] = before.clip(nil, found)
        return unless lengths

        nearer = Numo::SFloat.cast(found < before)
        2.times do |side|
          held = lengths[side][rows, columns].dup
          lengths[side][rows, columns] = held + (along * (@feathers[b][side] - @feathers[a][side]) + @feathers[a][side] - held) * nearer
        end
      end

      # Straight between places of a grid that lies on the picture's corner.
      def enlarged(plane, step, window, left, top)
        across, down = [[window.left, left, window.width], [window.top, top, window.height]].map { |first, grid, count| (Numo::SFloat.new(count).seq + (first + 0.5)) / step - grid }
        made = drawn(drawn(plane.transpose.dup, down).transpose.dup, across)
        made.reshape(window.size)
      end

      # @param plane [Numo::SFloat] [a, b]
      # @return [Numo::SFloat] [places, b] with b kept: along the last axis of what is given transposed
      def drawn(plane, places)
        at = Numo::Int64.cast(places.floor)
        share = (places - places.floor).reshape(1, places.size)
        from = plane[true, at].dup
        from + (plane[true, at + 1].dup - from) * share
      end
    end
  end
end
