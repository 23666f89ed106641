# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Half floats in the order of their size as 16-bit codes, so that pictures of floats go
      # the way of all others: each half float is one code, negative ones below the middle.
      # Within an octave codes follow values straight, from octave to octave as a logarithm.
      #
      # Source: IEEE 754-2008, binary16. Codes 0.0..1.0 stand for 0..65_535; what is not
      # finite in a file is held at the largest half float, what is no number is 0.
      module HalfCode
        CODES = 65_536
        MIDDLE = 32_768 # the code of 0.0
        LARGEST_BITS = 31_743 # of a finite half float

        module_function

        # @param values [Numo::SFloat] any shape
        # @return [Numo::UInt16] of that shape
        def codes(values)
          bits = Numo::Int32.cast(Media::Half.bits(values.reshape(values.size)))
          size = bits & 0x7fff
          held = size.clip(0, LARGEST_BITS)
          held[size > Media::Half::INFINITY] = 0
          code = Piecewise.select(bits >= 0x8000, (held * -1) + (MIDDLE - 1), held + MIDDLE)
          Numo::UInt16.cast(code).reshape(*values.shape)
        end

        # @param values [Numo::NArray]
        # @return [Numo::NArray] codes 0.0..1.0 of the nearest half floats
        def encode(values) = values.class.cast(codes(Numo::SFloat.cast(values))) / (CODES - 1.0)

        # @param code [Numo::NArray] held to 0.0..1.0
        # @return [Numo::NArray] straight between the half floats of neighbouring codes
        def decode(code)
          place = (code * (CODES - 1.0)).clip(0.0, CODES - 1.0)
          below = Numo::Int64.cast(place.floor).clip(0, CODES - 2)
          low, high = table[below].dup, table[below + 1].dup
          code.class.cast(low + (high - low) * (Numo::DFloat.cast(place) - below))
        end

        # @return [Numo::DFloat] the value of each code
        def table
          @table ||= begin
            values = Numo::DFloat.cast(Media::Half.decode(Numo::UInt16.new(LARGEST_BITS + 1).seq))
            full = Numo::DFloat.new(CODES / 2).fill(Media::Half::LARGEST)
            full[0..LARGEST_BITS] = values
            Numo::DFloat.hstack([full.reverse * -1, full])
          end
        end
      end
    end
  end
end
