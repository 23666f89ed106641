# frozen_string_literal: true

module Mordant
  module Steps
    class Balance
      # What Balance does to one channel of log codes; see there for the formula.
      ToneCurve = Struct.new(:space, :exposure, :white, :offset, :contrast, :pivot, :lift, :gain, :gamma,
        keyword_init: true) do
        # @param code [Numo::NArray] log codes
        # @return [Numo::NArray] log codes
        def call(code)
          toned(balanced(code))
        end

        private

        def span = space.white - space.black

        def balanced(code)
          return code if exposure.zero? && white == 1.0

          fixed = (white == 1.0) ? 0.0 : black_light
          light = space.transfer.decode(code) * (2.0**exposure * white) + fixed * (1 - white)
          space.transfer.encode(light)
        end

        def toned(code)
          moved = (code + (offset * span - pivot)) * contrast + pivot
          tone = (moved - space.black) / span
          tone = (tone * (1 - lift) + lift) * gain
          tone = Colour::Piecewise.power(tone, 1.0 / gamma) + tone.clip(nil, 0.0) unless gamma == 1.0
          tone * span + space.black
        end

        # The light, after exposure, that leaves the step at the foot of the tone axis.
        def black_light
          return 0.0 if lift.zero? && offset.zero? && contrast == 1.0

          code = space.black - lift / (1 - lift) * span
          space.decode((code - pivot) / contrast + pivot - offset * span)
        end
      end
    end
  end
end
