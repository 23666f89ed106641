# frozen_string_literal: true

module Mordant
  module Colour
    module ACES
      # The way back from the glow and from the red modifier, on ACES2065-1.
      #
      # Source: ACESlib.RRT_Common.ctl, glow_inv and the inverse of the red modifier
      # (InvRRT.Academy.ctl). Defined for light that is not negative.
      module InverseSweeteners
        FORWARD = Sweeteners
        TINY = FORWARD::TINY

        module_function

        # @param planes [Array<Numo::DFloat>]
        # @return [Array<Numo::DFloat>]
        def darken(planes)
          gain = shaper(saturation(planes)) * FORWARD::GLOW_GAIN
          luminance = yc(planes)
          middle = gain * (FORWARD::GLOW_MID / luminance.clip(TINY, nil) - 0.5) / (gain * 0.5 - 1.0)
          least = gain * -1.0 / (gain + 1.0)
          fall = Piecewise.select(luminance <= (gain + 1.0) * (FORWARD::GLOW_MID * 2.0 / 3), least, middle)
          fall = Piecewise.select(luminance >= 2 * FORWARD::GLOW_MID, fall * 0.0, fall)
          planes.map { |plane| plane * (fall + 1.0) }
        end

        # The root of the quadratic that the modified red solves.
        def unredden(planes)
          red, green, blue = planes
          along = red * 2.0 - green - blue
          across = (green - blue) * Math.sqrt(3.0)
          tangent = (across.abs - along.clip(nil, 0.0)) / along.clip(TINY, nil)
          weight = FORWARD::HUE_WEIGHT.call(tangent) * (1 - FORWARD::RED_SCALE)
          least = Piecewise.select(across < 0.0, green, blue)
          a = weight - 1.0
          b = red - weight * (least + FORWARD::RED_PIVOT)
          c = weight * least * FORWARD::RED_PIVOT
          root = (b * -1.0 - Numo::NMath.sqrt((b * b - a * c * 4.0).clip(0.0, nil))) / (a * 2.0)
          [Piecewise.select(weight > 0.0, root, red), green, blue]
        end

        # rgb_2_saturation
        def saturation(planes)
          high, low = planes.reduce { |a, b| a.clip(b, nil) }, planes.reduce { |a, b| a.clip(nil, b) }
          (high.clip(TINY, nil) - low.clip(TINY, nil)) / high.clip(0.01, nil)
        end

        # rgb_2_yc
        def yc(planes)
          r, g, b = planes
          chroma = Numo::NMath.sqrt((b * (b - g) + g * (g - r) + r * (r - b)).clip(0.0, nil))
          (r + g + b + chroma * FORWARD::YC_RADIUS_WEIGHT) / 3.0
        end

        # sigmoid_shaper((saturation - 0.4) / 0.2)
        def shaper(saturation)
          u = ((saturation - 0.4) / 0.4).clip(-1.0, 1.0)
          u * (u.abs * -0.5 + 1.0) + 0.5
        end
      end
    end
  end
end
