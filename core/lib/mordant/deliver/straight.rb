# frozen_string_literal: true

module Mordant
  module Deliver
    # What a file holds made of a source's codes in one pass: grade, output, noise and rounding by one
    # kernel, to the same numbers as one after the other, without a picture of floats between. A file
    # of 16-bit codes takes green, blue and red, one of half floats blue, green and red.
    class Straight
      BITS = 16
      WORD = 2 # bytes

      # planes: String of three times width * height words of 16 bits, the low byte first; beyond: share of the pixels, see Beyond.share
      Made = Struct.new(:planes, :beyond)

      # @param frame [Frame] as the output has it
      # @param sheet [Sheet]
      # @return [Boolean] nothing else is to be done to it, and nobody has made its pixels
      def self.can?(frame, sheet)
        frame.is_a?(Grade::Coming) && frame.coming? && sheet.bare? && [frame.width, frame.height] == [sheet.width, sheet.height] && !LightLevels.of?(frame.encoding)
      end

      # @param frame [Grade::Coming]
      # @param dither [Dither, nil]
      # @param of [Integer] codes of which the noise is, in bits
      # @return [Made, nil] nil where it cannot be done in one
      def codes(frame, dither:, of:) = made(frame, Media::Integers::PLANES, noise: dither&.scaled((2**BITS - 1).fdiv(2**of - 1)))

      # @param frame [Grade::Coming]
      # @return [Made, nil]
      def halves(frame) = (made(frame, Media::HalfPlanes::ORDER, float: true) if Pointwise::Compiler.halves?)

      private

      def made(frame, order, noise: nil, float: false)
        kernel = kernel(frame.chains, noisy: !noise.nil?, float:)
        return unless kernel&.worth?(frame.size)

        job = Job.new(frame, order, noise, float, "\0".b * (3 * frame.size * WORD))
        sampled = nil
        found = Pointwise.each_tile(frame.size).sum do |range|
          quickly(kernel, job, range) ||
            ((sampled ||= Pointwise.sample(operations(frame.chains), frame.codes)) && quickly(kernel, job, range)) ||
            carefully(job, range)
        end
        Made.new(job.planes, found.fdiv(frame.size).round(5))
      end

      # One picture's.
      Job = Struct.new(:frame, :order, :noise, :float, :planes) do
        # @return [Array<Integer>] where the pixels of each channel go, in bytes
        def places(range) = Array.new(3) { |channel| (order.index(channel) * frame.size + range.begin) * WORD }

        # @param made [Numo::SFloat, Pointwise::Recorded]
        # @param rounding [Numo::SFloat, Pointwise::Recorded, nil]
        def word(made, rounding = nil)
          return made.is_a?(Numo::NArray) ? Media::Half.bits(made) : made.half if float

          placed = Media::Integers.placed(made, rounding || Media::Integers::HALF, BITS)
          made.is_a?(Numo::NArray) ? Numo::UInt16.cast(Numo::Int32.cast(placed)) : placed.code
        end
      end
      private_constant :Job

      def operations(chains) = chains.each_with_index.flat_map { |chain, place| chain.steps(codes: place.zero?) }

      # Kept for the next frame, which mostly goes through the same.
      def kernel(chains, **how)
        key = [chains.map(&:object_id), how]
        return @kernel if @key == key

        @key, @chains = key, chains # held, so that no other gets their ids
        @kernel = recorded(operations(chains), **how)
      end

      # @return [Pointwise::Kernel, nil]
      def recorded(operations, noisy:, float:)
        return unless operations.all? { |operation| Pointwise::Recording.takes?(operation) }

        job = Job.new(nil, nil, nil, float)
        Pointwise::Kernel.new([:codes] * 3 + [:floats] * (noisy ? 3 : 0)) do |*planes|
          made = Pointwise::Chain.reduce(operations, planes.first(3))
          words = made.each_with_index.map { |plane, channel| job.word(plane, planes[3 + channel]) }
          [*words, Beyond.out(made, float).flag, made.map(&:none).reduce(:|)]
        end
      end

      # @return [Integer, nil] pixels beyond the codes; nil where something has not been made yet, or is none
      def quickly(kernel, job, range)
        flags = Numo::UInt16.new(range.size).allocate
        noise = job.noise ? Array.new(3) { |channel| job.noise.rounding(channel, range) } : []
        start = Pointwise::Memory.address(job.planes)
        done = kernel.run(range.size, Pointwise.rows(job.frame.codes, range) + noise, [*job.places(range).map { |place| start + place }, flags])
        Numo::UInt32.cast(flags).sum if done
      end

      # @return [Integer] pixels beyond the codes
      def carefully(job, range)
        made = Pointwise::Chain.reduce(operations(job.frame.chains), Array.new(3) { |channel| job.frame.codes[channel, range].dup })
        made.zip(job.places(range)).each_with_index { |(plane, place), channel| job.planes[place, range.size * WORD] = job.word(plane, job.noise&.rounding(channel, range)).to_binary }
        Beyond.out(made, job.float).count_true
      end
    end
  end
end
