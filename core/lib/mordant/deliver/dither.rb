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

      # @param scale [Float] codes that one code of the noise is
      # @return [Numo::SFloat] the noise, with the half that makes cutting off a rounding
      def self.rounding(scale)
        @rounding ||= {}
        @rounding.shift if @rounding.size > KEPT
        @rounding[scale] ||= noise * scale + 0.5
      end
      KEPT = 4

      # @param frame [Integer] number of the frame
      def initialize(frame)
        @frame = frame
      end

      # @param channel [Integer]
      # @param range [Range] pixels of the plane
      # @param scale [Float] see .rounding
      # @return [Numo::SFloat] what is added to each before it is cut off to a whole number; not to be written to
      def rounding(channel, range, scale)
        size = range.size
        first = ((@frame * 3 + channel) * STEP + range.begin) % (SPAN - size)
        self.class.rounding(scale)[first...(first + size)]
      end
    end
  end
end
