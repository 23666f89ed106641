# frozen_string_literal: true

module Mordant
  module Area
    # A Gaussian of any size. A wide one is made of means of blocks, which lie on a grid of the
    # whole picture, and drawn straight between their centres: its variance is made up of that of
    # the blocks, (f^2 - 1) / 12, of the lines, f^2 / 6, and of the boxes over the blocks.
    class Gaussian
      NARROWEST = 4.0 # blocks of standard deviation that are left when the picture is reduced

      # @param sigma [Float] standard deviation in pixels, above 0
      def initialize(sigma)
        @block = 2**[Math.log2(sigma / NARROWEST).floor, 0].max
        @boxes = Boxes.new((@block == 1) ? sigma : Math.sqrt((sigma**2 - (@block**2 - 1) / 12.0 - @block**2 / 6.0) / @block**2))
        freeze
      end

      # @return [Integer] pixels around one that it depends on
      def margin = (@block == 1) ? @boxes.margin : @block * (@boxes.margin + 3)

      # @param plane [Numo::SFloat] [n] of the window; never written to
      # @param window [Grade::Window]
      # @return [Numo::SFloat] [n]
      def call(plane, window)
        rows = plane.reshape(window.height, window.width)
        return @boxes.call(rows).reshape(window.size) if @block == 1

        left, top = window.left % @block, window.top % @block
        means = @boxes.call(means(rows, left, top))
        down = lines(lines(means).transpose.dup).transpose # rows, then columns
        down[top...(top + window.height), left...(left + window.width)].dup.reshape(window.size)
      end

      private

      # Means of the grid's blocks; one that is not all within goes on as it ends.
      def means(rows, left, top)
        height, width = rows.shape
        wide, high = [[left, width], [top, height]].map { |before, edge| (before + edge + @block - 1) / @block * @block }
        full = Numo::SFloat.new(high, wide).allocate
        full[top...(top + height), left...(left + width)] = rows
        full[top...(top + height), 0...left] = rows[true, 0..0] if left.positive?
        full[top...(top + height), (left + width)..] = rows[true, (width - 1)..] if left + width < wide
        full[0...top, true] = full[top..top, true] if top.positive?
        full[(top + height).., true] = full[(top + height - 1)..(top + height - 1), true] if top + height < high
        across = full.reshape(high * wide / @block, @block).sum(axis: 1).reshape(high / @block, @block, wide / @block)
        across.transpose(0, 2, 1).dup.sum(axis: 2) * (1.0 / @block**2)
      end

      # Along rows: from each block's centre straight to the next one's.
      def lines(means)
        height, width = means.shape
        ends = Numo::SFloat.new(height, width + 2).allocate
        ends[true, 1..width] = means
        ends[true, 0] = means[true, 0]
        ends[true, width + 1] = means[true, width - 1]
        share = (Numo::SFloat.new(@block).seq + 0.5) / @block
        from, to = ends[true, 0..width].reshape(height, width + 1, 1), ends[true, 1..(width + 1)].reshape(height, width + 1, 1)
        drawn = (to - from) * share + from
        drawn.reshape(height, (width + 1) * @block)[true, (@block / 2)...(@block / 2 + width * @block)].dup
      end
    end
  end
end
