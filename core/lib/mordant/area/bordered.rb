# frozen_string_literal: true

module Mordant
  module Area
    # A plane as one row with a border all round, into which its edges go on: every pixel's neighbour on one side lies the same way
    # off, so that all of a plane is worked on at once, and in place. Each step spoils as much of the border as it reaches; the border must
    # be as wide as all of them together.
    class Bordered
      # @return [Integer] from one row to the next
      attr_reader :down

      # @param width [Integer]
      # @param height [Integer]
      # @param border [Integer] pixels
      def initialize(width, height, border)
        @width, @height, @border = width, height, border
        @down = width + 2 * border
        freeze
      end

      # @return [Integer] from one pixel to the next
      def across = 1

      # @param plane [Numo::NArray] [width * height]
      # @return [Numo::NArray] the same with its border, as one row
      def laid(plane)
        rows = plane.class.new(@height + 2 * @border, @down).allocate
        inner = @border...(@border + @height)
        rows[inner, @border...(@border + @width)] = Pointwise.shaped(plane, @height, @width)
        rows[inner, 0...@border] = rows[inner, @border..@border]
        rows[inner, (@border + @width)..] = rows[inner, (@border + @width - 1)..(@border + @width - 1)]
        rows[0...@border, true] = rows[@border..@border, true]
        rows[(@border + @height).., true] = rows[(@border + @height - 1)..(@border + @height - 1), true]
        rows.reshape!(rows.size)
      end

      # @param row [Numo::SFloat]
      # @return [Numo::SFloat] [width * height] without the border
      def taken(row) = Pointwise.shaped(row, @height + 2 * @border, @down)[@border...(@border + @height), @border...(@border + @width)].dup.reshape!(@width * @height)

      # @return [Numo::SFloat] room for one plane with its border, with anything in it
      def room = Numo::SFloat.new((@height + 2 * @border) * @down).allocate

      # Blurred one way, by a quarter of either neighbour and a half of its own.
      #
      # @param row [Numo::SFloat]
      # @param off [Integer] a multiple of #down or #across
      # @param into [Numo::SFloat] room that is not row itself
      # @return [Numo::SFloat] into
      def smooth(row, off, into)
        beside(SMOOTH, row, off, into)
      end

      # The sum of each with its neighbours, on both sides.
      #
      # @param row [Numo::SFloat]
      # @param off [Integer]
      # @param into [Numo::SFloat] room that is not row itself
      # @return [Numo::SFloat] into
      def sum(row, off, into) = beside(SUM, row, off, into)

      SMOOTH = Pointwise::Sweep.new(3) { |own, before, after| [(own * 2.0 + before + after) * 0.25] }
      SUM = Pointwise::Sweep.new(3) { |own, before, after| [own + before + after] }
      private_constant :SMOOTH, :SUM

      private

      # Of all but the first and the last, which have one neighbour and stay.
      def beside(sweep, row, off, into)
        sweep.parts(row, [off, 0, 2 * off], into[off...-off])
        [0...off, -off..].each { |ends| into[ends] = row[ends] }
        into
      end
    end
  end
end
