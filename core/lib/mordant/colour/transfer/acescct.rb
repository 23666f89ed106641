# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Source: Academy S-2016-001, ACEScct, 4.4.
      module Acescct
        BREAK = 0.0078125 # linear
        CODE_BREAK = 0.155251141552511
        SLOPE = 10.5402377416545
        INTERCEPT = 0.0729055341958355

        module_function

        def encode(linear)
          log = (Numo::NMath.log2(linear.clip(BREAK, nil)) + 9.72) / 17.52
          Piecewise.select(linear <= BREAK, linear * SLOPE + INTERCEPT, log)
        end

        # The published ceiling of 65_504 is left to the medium that has it.
        def decode(code)
          Piecewise.select(code <= CODE_BREAK, (code - INTERCEPT) / SLOPE, Piecewise.exp2(code * 17.52 - 9.72))
        end
      end
    end
  end
end
