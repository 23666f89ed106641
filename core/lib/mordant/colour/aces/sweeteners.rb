# frozen_string_literal: true

module Mordant
  module Colour
    module ACES
      # The first two moves of the reference rendering on ACES2065-1: a glow in
      # dark saturated colours, and reds brought in.
      #
      # Source: ACESlib.RRT_Common.ctl and ACESlib.Transform_Common.ctl,
      # rgb_2_saturation, rgb_2_yc, glow_fwd, sigmoid_shaper, cubic_basis_shaper.
      # Saturation for the red modifier is taken after the glow (the reference
      # takes it before; they differ by up to 2 % in reds whose largest
      # component is below 0.01).
      class Sweeteners
        GLOW_GAIN = 0.05
        GLOW_MID = 0.08
        RED_SCALE = 0.82
        RED_PIVOT = 0.03
        RED_WIDTH = 135.0 # degrees, about hue 0
        YC_RADIUS_WEIGHT = 1.75 # rgb_2_yc
        TINY = 1e-10

        # The weight of a hue by its tangent q >= 0 on either side of hue 0: 1.5
        # times the uniform cubic B-spline over knots a quarter of the width apart.
        HUE_WEIGHT = lambda do |q|
          u = Numo::NMath.atan(q) * (180.0 / Math::PI * 4.0 / RED_WIDTH)
          outer = (u * -1 + 2.0).clip(0.0, nil)
          inner = (u * -1 + 1.0).clip(0.0, nil)
          (outer * outer * outer - inner * inner * inner * 4.0) * 0.25
        end

        # @param hue_weight [#call]
        # @param glows [Boolean] the first move
        # @param reddens [Boolean] the second
        def initialize(hue_weight = HUE_WEIGHT, glows: true, reddens: true)
          @hue_weight, @glows, @reddens = hue_weight, glows, reddens
        end

        def merge(_following) = nil

        def tabulate
          @tabulate ||= Sweeteners.new(Pointwise::FloatTable.new(HUE_WEIGHT), glows: @glows, reddens: @reddens)
        end

        # @return [Sweeteners] see Pointwise::MadeWhenRead#quick
        def quick = Sweeteners.new(@hue_weight.method(:quick), glows: @glows, reddens: @reddens)

        # @return [Boolean] through a table
        def recordable? = @hue_weight.is_a?(Pointwise::FloatTable)

        # @param planes [Array<Numo::NArray>] overwritten
        def call(planes)
          Pointwise::Scratch.use do |scratch|
            r, g, b = planes
            red_green = scratch << (r - g)
            green_blue = scratch << (g - b)
            high = scratch << (scratch << r.clip(g, nil)).clip(b, nil)
            low = scratch << (scratch << r.clip(nil, g)).clip(nil, b)
            if @glows
              scale = glow(scratch, planes, red_green, green_blue, saturation(scratch, high, low))
              [r, g, b, high, low].each { |plane| (plane.inplace * scale).out_of_place! }
            end
            redden(scratch, r, hue(scratch, red_green, green_blue), saturation(scratch, high, low)) if @reddens
          end
          planes
        end

        private

        # rgb_2_saturation
        def saturation(scratch, high, low)
          spread = scratch << high.clip(TINY, nil)
          spread.inplace - (scratch << low.clip(TINY, nil))
          spread.inplace / (scratch << high.clip(0.01, nil))
          spread.out_of_place!
        end

        # 1 + gain * fall: the whole gain below 2/3 of mid luminance, none above
        # twice mid, gain * (mid / yc - 1/2) between.
        def glow(scratch, planes, red_green, green_blue, saturation)
          threefold = luminance(scratch, planes, red_green, green_blue)
          fall = scratch << (3.0 * GLOW_MID / (scratch << threefold.clip(TINY, nil)))
          fall.inplace - 0.5
          fall = scratch << fall.out_of_place!.clip(0.0, 1.0)
          fall.inplace * shaper(scratch, saturation)
          fall.inplace * GLOW_GAIN
          (fall.inplace + 1.0).out_of_place!
        end

        # rgb_2_yc, three times: the chroma radicand b(b-g) + g(g-r) + r(r-b) is
        # (r-g)^2 + (r-g)(g-b) + (g-b)^2.
        def luminance(scratch, planes, red_green, green_blue)
          square = scratch << (red_green * red_green)
          [red_green, green_blue].each { |other| square.inplace + (scratch << (green_blue * other)) }
          sum = scratch << Pointwise.root(square.out_of_place!)
          sum.inplace * YC_RADIUS_WEIGHT
          planes.each { |plane| sum.inplace + plane }
          sum.out_of_place!
        end

        # sigmoid_shaper((saturation - 0.4) / 0.2) = 1/2 + u - u |u| / 2, u within -1..1
        def shaper(scratch, saturation)
          saturation.inplace - 0.4
          saturation.inplace * (1 / 0.4)
          u = scratch << saturation.out_of_place!.clip(-1.0, 1.0)
          bend = scratch << u.abs
          bend.inplace * -0.5
          bend.inplace + 1.0
          u.inplace * bend.out_of_place!
          (u.inplace + 0.5).out_of_place!
        end

        # The tangent of the angle from hue 0; beyond a right angle very large.
        # Grey has no hue, and no weight through its saturation.
        def hue(scratch, red_green, green_blue)
          along = scratch << (red_green * 2.0)
          (along.inplace + green_blue).out_of_place!
          across = scratch << green_blue.abs
          across.inplace * Math.sqrt(3.0)
          across.inplace - (scratch << along.clip(nil, 0.0))
          across.inplace / (scratch << along.clip(TINY, nil))
          across.out_of_place!
        end

        def redden(scratch, red, tangent, saturation)
          weight = scratch << @hue_weight.call(tangent)
          weight.inplace * saturation
          weight.inplace * (1 - RED_SCALE)
          pull = scratch << (red * -1.0)
          pull.inplace + RED_PIVOT
          pull.inplace * weight.out_of_place!
          (red.inplace + pull.out_of_place!).out_of_place!
        end
      end
    end
  end
end
