# frozen_string_literal: true

module Mordant
  module Steps
    class Curves
      # Where pixels stand on the axes that curves run across.
      class Places
        # @param planes [Array<Numo::NArray>] log codes
        # @param space [Colour::WorkingSpace]
        def initialize(planes, space)
          @planes, @space = planes, space
        end

        def luma = @luma ||= @planes.zip(@space.luminance_weights).map { |plane, weight| plane * weight }.reduce(:+)

        # @return [Numo::NArray] largest less smallest channel, code
        def saturation = @saturation ||= @planes.reduce { |a, b| a.clip(b, nil) } - @planes.reduce { |a, b| a.clip(nil, b) }

        # @return [Numo::NArray] 0..1: how much the hue of a pixel counts
        def presence = (saturation * (1 / FAINT)).clip(0.0, 1.0)

        # @return [Numo::NArray] 0 at red, a third at green, two thirds at blue; 0 of greys
        def hue
          red, green, blue = @planes
          angle = Numo::NMath.atan2((green - blue) * Math.sqrt(3.0), red * 2.0 - green - blue) * (0.5 / Math::PI)
          angle - angle.floor
        end

        # @param code [Numo::NArray] log codes
        # @return [Numo::NArray] place on the tone axis
        def tone(code) = (code - @space.black) * (1 / (@space.white - @space.black))
      end
    end
  end
end
