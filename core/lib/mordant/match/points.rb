# frozen_string_literal: true

module Mordant
  module Match
    # The pixels of a picture by the logarithm of their light: lightness in stops about mid
    # grey, warmth as stops of red over blue, tint as stops of green over both.
    #
    # Pixels too dark to have a colour are left out.
    class Points
      # Light of a channel, and luminance, below which a pixel is mostly noise.
      DARKEST = 2.0**-9
      DIM = 2.0**-7
      LEAST = 200 # pixels

      # @return [Numo::DFloat] [3, n]
      attr_reader :coordinates

      # @param frame [Frame] log codes of the working space
      # @param space [Colour::WorkingSpace]
      # @param name [String] of the picture, for errors
      # @raise [ParameterError] of a picture that is all but black
      def initialize(frame, space:, name: "picture")
        light = space.transfer.decode(Numo::DFloat.cast(frame.rgb))
        luminance = (light * Numo::DFloat[*space.luminance_weights].reshape(3, 1)).sum(0)
        seen = (luminance.gt(DIM) & light.min(axis: 0).gt(DARKEST)).where
        raise ParameterError.new(path: name, expected: "#{LEAST} pixels or more with light in them", found: seen.size) if seen.size < LEAST

        red, green, blue = Array.new(3) { |channel| Numo::NMath.log2(light[channel, true][seen].dup) }
        stops = Numo::NMath.log2(luminance[seen].dup / Colour::WorkingSpace::MID_GREY)
        @coordinates = Numo::NArray.vstack([stops, red - blue, green - (red + blue) * 0.5])
        freeze
      end

      def size = coordinates.shape[1]

      # @param count [Integer]
      # @return [Numo::DFloat] [3, about count], spread evenly over the picture
      def sample(count)
        step = [size / count, 1].max
        coordinates[true, (0...size).step(step).to_a].dup
      end
    end
  end
end
