# frozen_string_literal: true

module Mordant
  module Media
    # Code values as whole numbers of a bit depth.
    module Integers
      TYPES = {8 => Numo::UInt8, 10 => Numo::UInt16, 16 => Numo::UInt16}.freeze

      module_function

      # @param frame [Frame] code values; held to 0.0..1.0, NaN becomes 0
      # @param bits [Integer] 8, 10 or 16: the full range is 0..2^bits - 1
      # @param dither [Deliver::Dither, nil]
      # @param of [Integer] codes of which the noise is, in bits; that many by default
      # @return [Numo::UInt8, Numo::UInt16] [pixels, 3]
      def interleave(frame, bits, dither: nil, of: bits)
        largest = 2**bits - 1
        out = TYPES.fetch(bits).new(frame.size, 3).allocate
        Pointwise.each_tile(frame.size) do |range|
          3.times do |channel|
            plane = frame.rgb[channel, range].dup
            (plane.inplace * largest + 0.5).out_of_place!
            (plane.inplace + dither.at(channel, range) * (largest / (2**of - 1).to_f)).out_of_place! if dither
            # NaN casts to a number out of range, which the second clip takes to 0
            held = Numo::Int32.cast(plane.clip(0.0, largest)).clip(0, largest)
            out[range, channel] = held
            [plane, held].each(&:free)
          end
        end
        out
      end
    end
  end
end
