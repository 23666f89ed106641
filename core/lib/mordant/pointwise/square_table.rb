# frozen_string_literal: true

module Mordant
  module Pointwise
    # Values at places of a square, rows of cells, between which it goes straight both ways; beyond, as at its edge. NaN
    # lies in the corner.
    class SquareTable
      # @return [String] the values
      attr_reader :memory

      # @param values [Numo::SFloat] [cells * cells], row by row
      # @param cells [Integer] of a row
      def initialize(values, cells)
        @values, @cells, @memory = values, cells, values.to_binary.freeze
        freeze
      end

      # @param across [Numo::SFloat, Recorded] cells from the first one's middle
      # @param down [Numo::SFloat, Recorded]
      # @return [Numo::SFloat, Recorded]
      def call(across, down)
        (left, right), (top, low) = [across, down].map { |place| split(place) }
        upper, lower = [0, 1].map do |row|
          first, second = [0, 1].map { |column| found((top + row) * @cells + left + column) }
          first + (second - first) * right
        end
        upper + (lower - upper) * low
      end

      private

      # @return [Array] the cell before, as a float, and how far beyond its middle
      def split(place)
        place = Pointwise.held(place, 0.0).clip(0.0, @cells - 1.001)
        whole = Pointwise.whole(place, @cells - 1)
        [whole, place - whole]
      end

      def found(place) = place.is_a?(Recorded) ? place.held(@values.size - 1).found_in(self) : @values[Numo::Int64.cast(place)].dup
    end
  end
end
