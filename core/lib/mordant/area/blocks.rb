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
        return Means.call(rows, @edge, left, top) if Means.worth?(*rows.shape)

        full = full(rows, left, top)
        high, wide = full.shape
        down = summed(Pointwise.shaped(full, high / @edge, @edge, wide)) { |at| [true, at, true] }
        full.free unless full.equal?(rows)
        summed(down.reshape!(high / @edge, wide / @edge, @edge)) { |at| [true, true, at] } * (1.0 / @edge**2)
      end

      # @param means [Numo::SFloat] as #means of the window
      # @param window [Grade::Window]
      # @return [Numo::SFloat] [n]
      def drawn(means, window)
        down, across = [[window.top, window.height], [window.left, window.width]].zip(means.shape).map { |place, blocks| way(*place, blocks) }
        Slopes.draw(means, down, across)
      end

      private

      # From each block's centre straight to the next one's; before the first one and after the last as they are.
      def way(first, count, blocks)
        WAYS.fetch([@edge, first % @edge, count, blocks]) do
          places = Numo::Int64.new(count).seq(first % @edge + @edge / 2)
          after = places / @edge
          Slopes::Way.new((after - 1).clip(0, blocks - 1), after.clip(0, blocks - 1), Numo::SFloat.cast((Numo::DFloat.cast(places % @edge) + 0.5) / @edge))
        end
      end
      WAYS = Pointwise::Lately.new(32) # of pictures as a screen shows them and of their bands, both ways
      private_constant :WAYS

      # Whole blocks of a window that begins within one.
      def full(rows, left, top)
        height, width = rows.shape
        wide, high = [[left, width], [top, height]].map { |before, edge| (before + edge + @edge - 1) / @edge * @edge }
        return rows if rows.contiguous? && [high, wide] == [height, width]

        full = Numo::SFloat.new(high, wide).allocate
        full[top...(top + height), left...(left + width)] = rows
        full[top...(top + height), 0...left] = rows[true, 0..0] if left.positive?
        full[top...(top + height), (left + width)..] = rows[true, (width - 1)..] if left + width < wide
        full[0...top, true] = full[top..top, true] if top.positive?
        full[(top + height).., true] = full[(top + height - 1)..(top + height - 1), true] if top + height < high
        full
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
