# frozen_string_literal: true

module Mordant
  module Area
    # A Gaussian of any size. A wide one is made of means of blocks, which lie on a grid of the
    # whole picture, and drawn straight between their centres: its variance is made up of that of
    # the blocks, (f^2 - 1) / 12, of the lines, f^2 / 6, and of the boxes over the blocks.
    class Gaussian
      NARROWEST = 4.0 # blocks of standard deviation that are left when the picture is reduced

      # @param sigma [Float] standard deviation in pixels, above 0
      # @param narrowest [Float] blocks of it that are left: fewer are quicker, and less round
      def initialize(sigma, narrowest: NARROWEST)
        @block = 2**[Math.log2(sigma / narrowest).floor, 0].max
        @boxes = Boxes.new((@block == 1) ? sigma : Math.sqrt((sigma**2 - (@block**2 - 1) / 12.0 - @block**2 / 6.0) / @block**2))
        freeze
      end

      # @return [Integer] pixels around one that it depends on
      def margin = (@block == 1) ? @boxes.margin : @block * @boxes.margin + Blocks.new(@block).margin

      # @param plane [Numo::SFloat] [n] of the window; never written to
      # @param window [Grade::Window]
      # @return [Numo::SFloat] [n]
      def call(plane, window)
        rows = Pointwise.shaped(plane, window.height, window.width)
        return @boxes.call(rows).reshape!(window.size) if @block == 1

        blocks = Blocks.new(@block)
        means = blocks.means(rows, window)
        wide = @boxes.call(means)
        blocks.drawn(wide, window).tap { [means, wide].each(&:free) }
      end
    end
  end
end
