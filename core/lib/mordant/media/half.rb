# frozen_string_literal: true

module Mordant
  module Media
    # 16-bit floating point, binary16 of IEEE 754-2008.
    module Half
      LARGEST = 65_504.0
      INFINITY = 0x7c00
      NAN = 0x7e00
      SMALLEST_NORMAL = 2.0**-14
      # Bits of the largest float that still rounds to LARGEST, and one more.
      OVERFLOW = 0x477ff000

      module_function

      # Rounds to the nearest, ties to even; what is too large becomes infinity.
      #
      # @param values [Numo::SFloat] vector
      # @return [Numo::UInt16] the bits
      def bits(values)
        return worked_out(values) unless kernel&.worth?(values.size)

        Numo::UInt16.new(values.size).allocate.tap { |made| kernel.run(values.size, [values], [made]) }
      end

      def kernel
        @kernel ||= Pointwise::Kernel.new([:floats]) { |plane| [plane.half] } if Pointwise::Kernel.here? && Pointwise::Compiler.halves?
      end

      def worked_out(values)
        word = Numo::Int32.from_binary(values.to_binary)
        sign = (word >> 16) & 0x8000
        magnitude = word & 0x7fffffff
        half = ((magnitude + 0xfff + ((magnitude >> 13) & 1)) >> 13) - (112 << 10)
        small = magnitude < 0x38800000 # 2^-14
        half[small] = subnormal(values[small].dup) if small.any?
        half[magnitude >= OVERFLOW] = INFINITY
        half[magnitude > 0x7f800000] = NAN
        Numo::UInt16.cast(half | sign)
      end

      # @param bits [Numo::UInt16] of any shape
      # @return [Numo::SFloat] exactly what the bits say
      def decode(bits)
        word = Numo::Int32.cast(bits)
        magnitude = word & 0x7fff
        small = Numo::SFloat.cast(magnitude) * 2.0**-24
        large = Numo::SFloat.from_binary(((magnitude << 13) + (112 << 23)).to_binary, bits.shape)
        value = Colour::Piecewise.select(magnitude < 0x400, small, large)
        value[magnitude.eq(INFINITY)] = Float::INFINITY
        value[magnitude > INFINITY] = Float::NAN
        value * (1.0 - Numo::SFloat.cast(word >> 15) * 2.0)
      end

      # The half float at or below, for values from 0 to LARGEST.
      #
      # @param values [Numo::SFloat] vector
      # @return [Numo::Int32] the bits
      def floor_bits(values)
        normal = (Numo::Int32.from_binary(values.to_binary) >> 13) - (112 << 10)
        small = Numo::Int32.cast((values * 2.0**24).floor.clip(0, 0x3ff))
        Colour::Piecewise.select(values < SMALLEST_NORMAL, small, normal)
      end

      def subnormal(values)
        Numo::Int32.cast((values.abs * 2.0**24).rint)
      end
    end
  end
end
