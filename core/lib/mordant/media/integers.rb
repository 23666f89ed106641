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
        each_tile(frame, bits, dither, of) do |codes, range|
          3.times { |channel| out[range, channel] = codes[channel, true] }
        end
        out
      end

      # The same, one plane after the other, as files of planes have them.
      #
      # @return [Numo::UInt8, Numo::UInt16] [3, pixels]: green, blue, red
      def planes(frame, bits, dither: nil, of: bits)
        out = TYPES.fetch(bits).new(3, frame.size).allocate
        each_tile(frame, bits, dither, of) do |codes, range|
          PLANES.each_with_index { |channel, place| out[place, range] = codes[channel, true] }
        end
        out
      end

      # @param frame [Frame]
      # @param bits [Integer]
      # @param dither [Deliver::Dither, nil]
      # @param of [Integer]
      # @yieldparam codes [Numo::UInt16, Numo::Int32] [3, n]: red, green, blue of a stretch
      # @yieldparam range [Range<Integer>] its pixels
      def each_tile(frame, bits, dither, of)
        noise = dither&.scaled((2**bits - 1).fdiv(2**of - 1))
        kernel = kernel(bits, noisy: !noise.nil?)
        quick = kernel.worth?(frame.size)
        Pointwise.each_tile(frame.size) do |range|
          codes = quick ? quickly(kernel, frame, range, noise) : one_by_one(frame, range, bits, noise)
          yield codes, range
          codes.free
        end
      end

      # @return [Numo::UInt16] [3, n]
      def quickly(kernel, frame, range, noise)
        codes = Numo::UInt16.new(3, range.size).allocate
        kernel.run(range.size, Pointwise.rows(frame.rgb, range) + (noise ? Array.new(3) { |channel| noise.rounding(channel, range) } : []), Pointwise.rows(codes))
        codes
      end

      # @return [Numo::Int32] [3, n]; NaN is not held by a clip, and casts to a multiple of 65,536 and so to 0 in both types
      def one_by_one(frame, range, bits, noise)
        Numo::Int32.new(3, range.size).allocate.tap do |codes|
          3.times do |channel|
            held = placed(frame.rgb[channel, range], noise ? noise.rounding(channel, range) : HALF, bits)
            codes[channel, true] = Numo::Int32.cast(held)
            held.free
          end
        end
      end

      # @param values [Numo::SFloat, Pointwise::Recorded] codes of 0.0..1.0
      # @param rounding [Numo::SFloat, Pointwise::Recorded, Float] in codes of that many bits
      # @return [Numo::SFloat, Pointwise::Recorded] 0.0..2^bits - 1, from which the whole number is cut off
      def placed(values, rounding, bits)
        largest = 2**bits - 1
        run = values * largest
        (run.inplace + rounding).out_of_place!.clip(0.0, largest)
      end
      HALF = 0.5 # makes cutting off a rounding

      # @return [Pointwise::Kernel]
      def kernel(bits, noisy:)
        @kernels ||= {}
        @kernels[[bits, noisy]] ||= Pointwise::Kernel.new([:floats] * (noisy ? 6 : 3)) do |*planes|
          planes.first(3).each_with_index.map { |plane, channel| placed(plane, noisy ? planes[3 + channel] : HALF, bits).code }
        end
      end
    end
  end
end
