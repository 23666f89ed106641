# frozen_string_literal: true

module Mordant
  module Pointwise
    # A function of log-encoded values, tabulated at 16,385 equal distances over
    # -1.0..3.0 and interpolated linearly; beyond, the last interval goes on.
    #
    # Error: for the decoding of a log encoding of 17.52 stops a unit at most
    # 2e-6 of the value, half of it the rounding of the float. NaN stays NaN.
    class UniformTable
      FIRST = -1.0
      LAST = 3.0
      INTERVALS = 16_384
      DENSITY = INTERVALS / (LAST - FIRST)
      SHIFT = (FIRST * DENSITY).to_i # position of the first node
      LARGEST = 3.0e38

      # @param function [#call] takes and returns a Numo::DFloat vector
      def initialize(function)
        nodes = Numo::DFloat.new(INTERVALS + 1).seq / DENSITY + FIRST
        values = function.call(nodes).clip(-LARGEST, LARGEST)
        @values = Numo::SFloat.cast(values[0...-1])
        @rises = Numo::SFloat.cast(values[1..] - values[0...-1])
        freeze
      end

      # @param plane [Numo::SFloat]
      # @return [Numo::SFloat] a new vector
      def call(plane)
        position = plane * DENSITY
        floor = position.floor
        base = floor.clip(SHIFT, SHIFT + INTERVALS - 1)
        (position.inplace - base).out_of_place!
        index = (Numo::Int32.cast(base).inplace - SHIFT).out_of_place!
        held = index.clip(0, INTERVALS - 1) # NaN casts to a number out of range
        Table.interpolate(@values, @rises, held, position)
      ensure
        [floor, base, index, held].each { |array| array&.free }
      end
    end
  end
end
