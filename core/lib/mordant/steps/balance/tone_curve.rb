# frozen_string_literal: true

module Mordant
  module Steps
    class Balance
      # What Balance does to one channel of log codes; see there for the formula.
      ToneCurve = Struct.new(:space, :exposure, :white, :offset, :contrast, :pivot, :black_point, :white_point,
        :lift, :gain, :gamma,
        keyword_init: true) do
        # @param code [Numo::NArray] log codes
        # @return [Numo::NArray] log codes
        def call(code)
          toned(balanced(code))
        end

        # The light, after exposure, that leaves the step at the foot of the tone axis.
        def black_light
          return 0.0 if lift.zero? && offset.zero? && contrast == 1.0 && black_point.zero?

          code = space.black + (black_point - lift / (1 - lift) * range) * span
          space.decode((code - pivot) / contrast + pivot - offset * span)
        end

        private

        def span = space.white - space.black

        def balanced(code)
          return code if exposure.zero? && white == 1.0

          fixed = (white == 1.0) ? 0.0 : black_light
          light = space.transfer.decode(code) * (2.0**exposure * white)
          light = (light.inplace + fixed * (1 - white)).out_of_place! unless fixed.zero?
          space.transfer.encode(light)
        end

        # Up to the power everything is one straight line of the code; what is not
        # wanted any more is written over.
        def toned(code)
          slope = contrast / span / range * (1 - lift) * gain
          tone = (((offset * span - pivot) * contrast + pivot - black) / span - black_point) / range
          start = (tone * (1 - lift) + lift) * gain
          made = code * slope
          made.inplace + start
          made = powered(made.out_of_place!) unless gamma == 1.0
          made.inplace * span
          (made.inplace + black).out_of_place!
        end

        def powered(tone)
          negative = tone.clip(nil, 0.0)
          (Colour::Piecewise.power(tone, 1.0 / gamma).inplace + negative).out_of_place!
        end

        def black = space.black

        def range = white_point - black_point
      end
    end
  end
end
