# frozen_string_literal: true

module Mordant
  module Pointwise
    # A function of log-encoded values, tabulated at equal distances over -1.0..3.0
    # and interpolated linearly; beyond, the last interval goes on.
    #
    # Error of the fine table (16,384 intervals), for the decoding of a log encoding
    # of 17.52 stops a unit: at most 4e-6 of the value, most of it the rounding of
    # the float. Of the plain one (4,096), for functions from log codes to log codes
    # whose slope changes by less than 10 a unit: 2e-6. NaN stays NaN.
    class UniformTable
      include MadeWhenRead

      FIRST = -1.0
      LAST = 3.0
      FINE = 16_384 # intervals
      PLAIN = 4096
      LARGEST = 3.0e38
      BLOCKS = 16 # in which intervals are made

      # @param function [#call] takes and returns a Numo::DFloat vector
      # @param fine [Boolean]
      def initialize(function, fine: true)
        @function = function
        @intervals = fine ? FINE : PLAIN
        @density = @intervals / (LAST - FIRST)
        begin_entries(@intervals, BLOCKS)
        freeze
      end

      private

      # Start and slope of the interval each value is in, put together.
      def read(plane)
        index = positions(plane)
        Table.interpolate(@entries, index, plane)
      ensure
        index&.free
      end

      def record(plane)
        start, rise = (plane * @density - FIRST * @density).held(@intervals - 1).pair_in(self)
        rise * plane + start
      end

      def positions(plane)
        place = plane * @density
        place.inplace - FIRST * @density
        place.inplace.clip(0.0, @intervals - 1.0)
        Numo::Int64.cast(place.out_of_place!)
      ensure
        place&.free
      end

      def blocks_of(plane)
        place = positions(plane)
        (place.min / block)..(place.max / block)
      end

      def block = @intervals / BLOCKS

      def make(blocks)
        first, last = blocks.first * block, (blocks.last + 1) * block
        nodes = (Numo::DFloat.new(last - first + 1).seq + first) / @density + FIRST
        values = @function.call(nodes).clip(-LARGEST, LARGEST)
        slopes = (values[1..] - values[0...-1]) * @density
        @entries[first...last] = Table.pairs(values[0...-1] - slopes * nodes[0...-1], slopes)
      end
    end
  end
end
