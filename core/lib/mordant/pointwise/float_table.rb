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
      include MadeWhenRead

      BIAS = 127
      NODES_PER_OCTAVE = 128
      FIRST = (BIAS - 30) * NODES_PER_OCTAVE # index of 2^-30
      LAST = (BIAS + 17) * NODES_PER_OCTAVE # index of 2^17
      HALF = 0x8000 # indices of one sign
      NAN = 0x7f81 # first index of one sign that is not a number
      LARGEST_VALUE = 3.0e38
      SHARE = 1.0 / 65_536
      BLOCK = 512 # entries made at once: four octaves of one sign

      # @param function [#call] takes and returns a Numo::DFloat vector
      def initialize(function)
        @function = function
        begin_entries(2 * HALF, 2 * HALF / BLOCK)
        freeze
      end

      private

      def read(plane)
        bits = Numo::Int32.from_binary(plane.to_binary)
        index = bits >> 16 # negative for negative floats, and so counted from the end
        rest = Numo::SFloat.cast((bits.inplace & 0xffff).out_of_place!)
        Table.interpolate(@entries, index, rest)
      ensure
        [bits, index, rest].each { |array| array&.free }
      end

      # The same of a stand-in, whose bits have no sign: entries of negative floats come after all others.
      def record(plane)
        bits = plane.bits
        start, rise = (bits >> 16).pair_in(self)
        rise * (bits & 0xffff).float + start
      end

      def blocks_of(plane)
        index = (Numo::Int32.from_binary(plane.to_binary) >> 16) & 0xffff
        counts = (index / BLOCK).bincount.to_a
        counts.each_index.select { |block| counts[block].positive? }
      end

      # Entries of a run of blocks, each with the rise to the next.
      def make(blocks)
        first, last = blocks.first * BLOCK, (blocks.last + 1) * BLOCK
        [[first, [last, HALF].min], [[first, HALF].max, last]].each do |from, to|
          next if from >= to

          nodes = nodes_between(from, to)
          values = at(nodes).clip(-LARGEST_VALUE, LARGEST_VALUE)
          @entries[from...to] = Table.pairs(values[0...-1], (values[1..] - values[0...-1]) * SHARE)
          @entries[(to - HALF + NAN)...to] = Complex(Float::NAN, 0.0) if to % HALF == 0
        end
      end

      # The floats of indices within one sign, and the one after.
      def nodes_between(from, to)
        index = Numo::Int64.new(to - from + 1).seq + from % HALF
        held = index.clip(0, LAST)
        size = Numo::DFloat.cast(Numo::SFloat.from_binary(Numo::Int32.cast(held * 65_536).to_binary))
        (from < HALF) ? size : size * -1
      end

      # The function, straight to 0 from 2^-30 on.
      def at(nodes)
        least = 2.0**-30
        tiny = nodes.abs < least
        return @function.call(nodes) unless tiny.any?

        zero, low = @function.call(Numo::DFloat[0.0, (nodes.sum < 0) ? -least : least]).to_a
        Colour::Piecewise.select(tiny, nodes.abs / least * (low - zero) + zero, @function.call(nodes))
      end
    end
  end
end
