# frozen_string_literal: true

module Mordant
  module Media
    # Code values as whole numbers of a bit depth; held to 0.0..1.0, NaN becomes 0.
    module Integers
      TYPES = {8 => Numo::UInt8, 10 => Numo::UInt16, 16 => Numo::UInt16}.freeze
      PLANES = [1, 2, 0].freeze # green, blue, red

      module_function

      # @param frame [Frame] code values
      # @param bits [Integer] 8, 10 or 16: the full range is 0..2^bits - 1
      # @param dither [Deliver::Dither, nil]
      # @param of [Integer] codes of which the noise is, in bits; that many by default
      # @return [Numo::UInt8, Numo::UInt16] [pixels, 3]
      def interleave(frame, bits, dither: nil, of: bits)
        out = TYPES.fetch(bits).new(frame.size, 3).allocate
        each_run(frame, bits, dither, of) { |codes, range, channel| out[range, channel] = codes }
        out
      end

      # The same, one plane after the other, as files of planes have them.
      #
      # @return [Numo::UInt8, Numo::UInt16] [3, pixels]: green, blue, red
      def planes(frame, bits, dither: nil, of: bits)
        out = TYPES.fetch(bits).new(3, frame.size).allocate
        each_run(frame, bits, dither, of) { |codes, range, channel| out[PLANES.index(channel), range] = codes }
        out
      end

      # @param frame [Frame]
      # @param bits [Integer]
      # @param dither [Deliver::Dither, nil]
      # @param of [Integer]
      # @yieldparam codes [Numo::Int32] of a stretch of one channel; NaN is a multiple of 65,536 and so 0 in both types
      # @yieldparam range [Range<Integer>] pixels
      # @yieldparam channel [Integer]
      def each_run(frame, bits, dither, of)
        largest = 2**bits - 1
        Pointwise.each_tile(frame.size) do |range|
          3.times do |channel|
            run = frame.rgb[channel, range] * largest
            rounding = dither ? dither.rounding(channel, range, largest.fdiv(2**of - 1)) : 0.5
            # NaN is not held by a clip, and casts to 0
            held = (run.inplace + rounding).out_of_place!.clip(0.0, largest)
            codes = Numo::Int32.cast(held)
            yield codes, range, channel
            [run, held, codes].each(&:free)
          end
        end
      end
    end
  end
end
