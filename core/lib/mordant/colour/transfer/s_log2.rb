# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # S-Log2, as full-range codes of a signal that is published in shares of the
      # legal range; 0.9 is the reflection scale of the published definition.
      #
      # Source: S-Log2 technical paper, 2012; S-Log white paper, 2009.
      class SLog2
        REFLECTION = 0.9
        LOWEST = 64.0
        SPAN = 876.0
        BLACK = 0.030001222851889303

        # @param gain [Float] light against that of the first S-Log, whose gain is 1
        def initialize(gain)
          @gain = gain
          freeze
        end

        def encode(linear)
          light = linear * (@gain / REFLECTION)
          log = Numo::NMath.log10(light.clip(0.0, nil) + 0.037584) * 0.432699 + 0.616596 + 0.03
          (Piecewise.select(light < 0.0, light * 5.0 + BLACK, log) * SPAN + LOWEST) / 1023.0
        end

        def decode(code)
          share = (code * 1023.0 - LOWEST) / SPAN
          log = Piecewise.exp10((share - 0.616596 - 0.03) / 0.432699) - 0.037584
          Piecewise.select(share < BLACK, (share - BLACK) / 5.0, log) * (REFLECTION / @gain)
        end
      end
    end
  end
end
