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

      def subnormal(values)
        Numo::Int32.cast((values.abs * 2.0**24).rint)
      end
    end
  end
end
