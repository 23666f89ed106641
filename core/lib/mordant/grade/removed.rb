# frozen_string_literal: true

module Mordant
  module Grade
    # What a step takes away from a picture, about middle grey and amplified.
    module Removed
      GAINS = (1..64)
      USUAL = 8

      module_function

      # @param after [Frame] with the step, in log codes of the working space
      # @param before [Frame] without it, of the same raster
      # @param space [Colour::WorkingSpace]
      # @param gain [Numeric] of GAINS
      # @return [Frame] in log codes
      # @raise [ParameterError]
      def of(after, before, space, gain)
        raise ParameterError.new(path: "gain", expected: "a number in #{GAINS}", found: gain) unless gain.is_a?(Numeric) && GAINS.cover?(gain)

        after.with(((before.rgb - after.rgb) * gain.to_f + space.middle).clip(space.black, space.white))
      end
    end
  end
end
