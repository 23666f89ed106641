# frozen_string_literal: true

module Mordant
  module Area
    # Means of square blocks, which lie on a grid of the whole picture, and the way back, drawn
    # straight between their centres: wherever a window begins, the same bits.
    class Blocks
      # @param edge [Integer] pixels; an even number where pictures are drawn
      def initialize(edge)
        @edge = edge
        freeze
      end

      # @return [Integer] pixels beyond a block that a picture depends on
      def margin = 3 * @edge

      # @param rows [Numo::SFloat] [height, width] of a window; a block that is not all within goes on as it ends
      # @param window [Grade::Window]
      # @return [Numo::SFloat] [blocks down, blocks across]
      def means(rows, window)
        left, top = window.left % @edge, window.top % @edge
        height, width = rows.shape
        wide, high = [[left, width], [top, height]].map { |before, edge| (before + edge + @edge - 1) / @edge * @edge }
        full = Numo::SFloat.new(high, wide).allocate
        full[top...(top + height), left...(left + width)] = rows
        full[top...(top + height), 0...left] = rows[true, 0..0] if left.positive?
        full[top...(top + height), (left + width)..] = rows[true, (width - 1)..] if left + width < wide
        full[0...top, true] = full[top..top, true] if top.positive?
        full[(top + height).., true] = full[(top + height - 1)..(top + height - 1), true] if top + height < high
        down = summed(full.reshape!(high / @edge, @edge, wide)) { |at| [true, at, true] }
        full.free
        summed(down.reshape!(high / @edge, wide / @edge, @edge)) { |at| [true, true, at] } * (1.0 / @edge**2)
      end

      # @param means [Numo::SFloat] as #means of the window
      # @param window [Grade::Window]
      # @return [Numo::SFloat] [n]
      def drawn(means, window)
        left, top = window.left % @edge, window.top % @edge
        down = lines(lines(means).transpose.dup) # rows, then columns
        down.transpose[top...(top + window.height), left...(left + window.width)].dup.reshape!(window.size).tap { down.free }
      end

      private

      # Along rows: from each block's centre straight to the next one's.
      def lines(means)
        height, width = means.shape
        ends = Numo::SFloat.new(height, width + 2).allocate
        ends[true, 1..width] = means
        ends[true, 0] = means[true, 0]
        ends[true, width + 1] = means[true, width - 1]
        from, to = ends[true, 0..width], ends[true, 1..(width + 1)]
        off = to - from
        drawn = Numo::SFloat.new(height, width + 1, @edge).allocate
        @edge.times { |at| drawn[true, true, at] = off * ((at + 0.5) / @edge) + from }
        drawn.reshape!(height, (width + 1) * @edge)[true, (@edge / 2)...(@edge / 2 + width * @edge)].dup.tap { drawn.free }
      end

      # Place by place of a block, in their order.
      def summed(planes)
        sum = planes[*yield(0)].dup
        (1...@edge).each { |at| sum.inplace + planes[*yield(at)] }
        sum.out_of_place!
      end
    end
  end
end
