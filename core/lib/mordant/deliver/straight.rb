# frozen_string_literal: true

module Mordant
  module Deliver
    # Whole numbers of a file made of those of a source in one pass: grade, output, noise and rounding by one
    # kernel, to the same numbers as one after the other, without a picture of floats between.
    class Straight
      BITS = 16
      CODE = 2 # bytes

      # planes: green, blue, red as files of planes have them; beyond: see Beyond.share
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
      def call(frame, dither:, of:)
        noise = dither&.scaled((2**BITS - 1).fdiv(2**of - 1))
        kernel = kernel(frame.chains, noisy: !noise.nil?)
        return unless kernel&.worth?(frame.size)

        planes = "\0".b * (3 * frame.size * CODE)
        sampled = nil
        found = Pointwise.each_tile(frame.size).sum do |range|
          quickly(kernel, frame, range, noise, planes) ||
            ((sampled ||= Pointwise.sample(operations(frame.chains), frame.codes)) && quickly(kernel, frame, range, noise, planes)) ||
            carefully(frame, range, noise, planes)
        end
        Made.new(planes, found.fdiv(frame.size).round(5))
      end

      private

      def operations(chains) = chains.each_with_index.flat_map { |chain, place| chain.steps(codes: place.zero?) }

      # Kept for the next frame, which mostly goes through the same.
      def kernel(chains, noisy:)
        key = [chains.map(&:object_id), noisy]
        return @kernel if @key == key

        @key, @chains = key, chains # held, so that no other gets their ids
        @kernel = recorded(operations(chains), noisy)
      end

      # @return [Pointwise::Kernel, nil]
      def recorded(operations, noisy)
        return unless operations.all? { |operation| Pointwise::Recording.takes?(operation) }

        Pointwise::Kernel.new([:codes] * 3 + [:floats] * (noisy ? 3 : 0)) do |*planes|
          made = Pointwise::Chain.reduce(operations, planes.first(3))
          codes = made.each_with_index.map { |plane, channel| Media::Integers.placed(plane, noisy ? planes[3 + channel] : Media::Integers::HALF, BITS).code }
          [*codes, Beyond.out(made, false).flag, made.map(&:none).reduce(:|)]
        end
      end

      # @return [Integer, nil] pixels beyond the codes; nil where something has not been made yet, or is none
      def quickly(kernel, frame, range, noise, planes)
        rows, flags = Array.new(3) { |channel| frame.codes[channel, range].to_binary }, "\0".b * (range.size * CODE)
        inputs = addresses(rows) + (noise ? Array.new(3) { |channel| noise.address(channel, range) } : [])
        starts = Array.new(3) { |channel| Pointwise::Kernel.address(planes) + place(channel, range, frame) }
        done = kernel.run(range.size, inputs, starts + addresses([flags]))
        Numo::UInt32.cast(Numo::UInt16.from_binary(flags)).sum if done
      ensure
        [*rows, flags].each(&:clear)
      end

      # @return [Integer] pixels beyond the codes
      def carefully(frame, range, noise, planes)
        made = Pointwise::Chain.reduce(operations(frame.chains), Array.new(3) { |channel| frame.codes[channel, range].dup })
        made.each_with_index do |plane, channel|
          codes = Numo::Int32.cast(Media::Integers.placed(plane, noise ? noise.rounding(channel, range) : Media::Integers::HALF, BITS))
          planes[place(channel, range, frame), range.size * CODE] = Numo::UInt16.cast(codes).to_binary
        end
        Beyond.out(made, false).count_true
      end

      def place(channel, range, frame) = (Media::Integers::PLANES.index(channel) * frame.size + range.begin) * CODE

      def addresses(rows) = rows.map { |row| Pointwise::Kernel.address(row) }
    end
  end
end
