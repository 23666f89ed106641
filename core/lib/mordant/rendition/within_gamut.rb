# frozen_string_literal: true

module Mordant
  module Rendition
    # Colours near the edge of a gamut and beyond it brought within, as Colour::GamutCompression does: how far a channel lies from the greatest one, in shares of
    # that, bends beyond NEAR so that the picture's own reach comes to lie on the edge. For colours beyond NEAR; see Where.
    class WithinGamut
      NEAR = Colour::GamutLimit::THRESHOLD
      EDGE = 1.0 # nothing of a picture that reaches no farther is moved
      LEAST = 1.01 # reach that is brought in

      # @param reach [Array<Float>] by channel, see Levels
      def initialize(reach)
        @scales = reach.map { |far| Bend.scale([far, LEAST].max, NEAR) }.freeze
        freeze
      end

      # @param planes [Array<Numo::NArray>] light in the gamut's primaries
      # @return [Array<Numo::NArray>]
      def call(planes)
        most = planes.reduce { |high, plane| high.clip(plane, nil) }
        size = most.clip(1e-30, nil)
        planes.zip(@scales).map do |plane, scale|
          distance = (most - plane) / size
          most - (distance.clip(nil, NEAR) + Bend.call((distance.clip(NEAR, nil) - NEAR) / scale) * scale) * size
        end
      end
    end
  end
end
