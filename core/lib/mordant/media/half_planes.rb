# frozen_string_literal: true

module Mordant
  module Media
    # A picture of half floats as files have them: bits of all blue, then all green, then all red.
    class HalfPlanes
      ORDER = [2, 1, 0].freeze # channels as they follow each other
      BYTES = 2

      attr_reader :width, :height
      # @return [String] id of a Colour::Encoding
      attr_reader :encoding

      # @param bits [String] three planes of width * height words
      def initialize(bits, width:, height:, encoding:)
        @bits, @width, @height, @encoding = bits, width, height, encoding
      end

      # @param rows [Range<Integer>]
      # @return [String] of each row blue, green and red
      def lines(rows)
        row = width * BYTES
        rows.flat_map { |line| Array.new(3) { |plane| @bits.byteslice((plane * height + line) * row, row) } }.join
      end
    end
  end
end
