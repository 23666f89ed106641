# frozen_string_literal: true

module Mordant
  module Track
    # A picture's lightness, and the same halved again and again. Places are counted in pixels of the
    # first level from the middle of the picture. Immutable.
    class Pyramid
      MOST = 5 # levels
      SMALLEST = 24 # rows or columns

      # @return [Integer] pixels of the first level
      attr_reader :width, :height

      # @param plane [Numo::SFloat] [height, width]
      def initialize(plane)
        @height, @width = plane.shape
        @levels = [plane]
        @levels << Pyramid.reduced(@levels.last, 2) while @levels.size < MOST && @levels.last.shape.min >= 2 * SMALLEST
        @levels.freeze
        freeze
      end

      # @return [Integer]
      def levels = @levels.size

      # @param level [Integer]
      # @return [Numo::SFloat] [height, width]
      def plane(level) = @levels.fetch(level)

      # Straight between the four pixels around.
      #
      # @param level [Integer]
      # @param x [Numo::SFloat] across, from the middle
      # @param y [Numo::SFloat] down
      # @return [Array(Numo::SFloat, Numo::SFloat)] values, and 1 of places within the picture, 0 of others
      def read(level, x, y)
        rows, columns = plane(level).shape
        across, down = (x + @width / 2.0) * (0.5**level) - 0.5, (y + @height / 2.0) * (0.5**level) - 0.5
        within = Numo::SFloat.cast((across >= 0) & (across <= columns - 1) & (down >= 0) & (down <= rows - 1))
        across, down = across.clip(0.0, columns - 1.001), down.clip(0.0, rows - 1.001)
        left, top = across.floor, down.floor
        at = Numo::Int64.cast(top) * columns + Numo::Int64.cast(left)
        values = plane(level).reshape(rows * columns)
        upper, lower = [0, columns].map { |row| values[at + row].dup.then { |from| from + (values[at + (row + 1)].dup - from) * (across - left) } }
        [upper + (lower - upper) * (down - top), within]
      end

      # @param plane [Numo::SFloat] [height, width]
      # @param by [Integer] edge of blocks
      # @return [Numo::SFloat] their means; what is no whole block at the right and below is left out
      def self.reduced(plane, by)
        rows, columns = plane.shape.map { |size| size / by }
        Area::Blocks.new(by).means(plane[0...(by * rows), 0...(by * columns)].dup, Grade::Window.whole(by * columns, by * rows))
      end
    end
  end
end
