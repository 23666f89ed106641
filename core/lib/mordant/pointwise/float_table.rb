# frozen_string_literal: true

module Mordant
  module Pointwise
    # A function of one variable, tabulated over the leading sixteen bits of a
    # 32-bit float (sign, exponent and seven bits of mantissa: 128 nodes an
    # octave, both signs) and interpolated linearly by the other sixteen.
    #
    # Error: at most x^2 |f''(x)| / 131_072 within an octave on which f is
    # smooth; a break of f on a power of two costs nothing. For powers and
    # logarithms of light that is below 1e-5 of the value.
    # Domain: magnitudes of 2^-30..2^17 as stated; a straight line through 0
    # below them, the value of the end above them. NaN stays NaN.
    class FloatTable
      BIAS = 127
      NODES_PER_OCTAVE = 128
      FIRST = (BIAS - 30) * NODES_PER_OCTAVE # index of 2^-30
      LAST = (BIAS + 17) * NODES_PER_OCTAVE # index of 2^17
      NAN = 0xff * NODES_PER_OCTAVE + 1 # first index that is not a number
      HALF = 0x8000 # indices of one sign
      SMALLEST = 2.0**-30
      LARGEST_VALUE = 3.0e38
      SHARE = 1.0 / 65_536

      # 2^-30..2^17, both ends included.
      MAGNITUDES = begin
        bits = Numo::Int32.cast((Numo::Int64.new(LAST - FIRST + 1).seq + FIRST) * 65_536)
        Numo::DFloat.cast(Numo::SFloat.from_binary(bits.to_binary))
      end.freeze

      # What share of 2^-30 the nodes below it are.
      BELOW = begin
        bits = Numo::Int32.cast(Numo::Int64.new(FIRST).seq * 65_536)
        Numo::DFloat.cast(Numo::SFloat.from_binary(bits.to_binary)) / SMALLEST
      end.freeze

      # @param function [#call] takes and returns a Numo::DFloat vector
      def initialize(function)
        count = MAGNITUDES.size
        found = function.call(Numo::DFloat[0.0].concatenate(MAGNITUDES, MAGNITUDES * -1))
          .clip(-LARGEST_VALUE, LARGEST_VALUE)
        @values = Numo::SFloat.zeros(2 * HALF)
        @rises = Numo::SFloat.zeros(2 * HALF)
        fill(0, found[0], found[1..count])
        fill(HALF, found[0], found[(count + 1)..])
        freeze
      end

      # @param plane [Numo::SFloat] contiguous vector
      # @return [Numo::SFloat] a new vector
      def call(plane)
        bits = Numo::Int32.from_binary(plane.to_binary)
        index = bits >> 16 # negative for negative floats, and so counted from the end
        rest = Numo::SFloat.cast((bits.inplace & 0xffff).out_of_place!)
        Table.interpolate(@values, @rises, index, rest)
      ensure
        [bits, index].each { |array| array&.free }
      end

      private

      def fill(half, at_zero, dense)
        top = half + LAST
        @values[half...(half + FIRST)] = BELOW * (dense[0] - at_zero) + at_zero
        @values[(half + FIRST)..top] = dense
        @values[top...(half + NAN)] = dense[-1]
        @values[(half + NAN)...(half + HALF)] = Float::NAN
        exact = Numo::DFloat.cast(@values[half..top])
        @rises[half...top] = (exact[1..] - exact[0...-1]) * SHARE
      end
    end
  end
end
