# frozen_string_literal: true

module Mordant
  module Deliver
    # Noise that is added before values become whole numbers, so that slow gradients do not
    # turn into bands: even over one code, about 0, a different one for each frame, and the
    # same again whenever that frame is written again.
    class Dither
      SPAN = 1 << 18 # values, from which every plane takes a stretch
      STEP = 40_507 # between stretches, a prime, so that no two frames near each other share one

      def self.noise
        @noise ||= begin
          state = Random.new(0) # the same numbers every time
          Numo::SFloat.cast(Array.new(SPAN) { state.rand - 0.5 })
        end
      end

      # @param frame [Integer] number of the frame
      def initialize(frame)
        @frame = frame
      end

      # @param channel [Integer]
      # @param range [Range] pixels of the plane
      # @return [Numo::SFloat] -0.5...0.5 codes for each
      def at(channel, range)
        size = range.size
        first = ((@frame * 3 + channel) * STEP + range.begin) % (SPAN - size)
        self.class.noise[first...(first + size)].dup
      end
    end
  end
end
