# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Source: Academy S-2016-001, ACEScct, 4.4.
      module Acescct
        BREAK = 0.0078125 # linear
        CODE_BREAK = 0.155251141552511
        SLOPE = 10.5402377416545

        module_function

        # The logarithm above the break and the straight line below it meet there,
        # so that each can be held at the break and the two added.
        def encode(linear)
          log = (Numo::NMath.log2(linear.clip(BREAK, nil)) + 9.72) / 17.52
          log + (linear - BREAK).clip(nil, 0.0) * SLOPE
        end

        # The published ceiling of 65_504 is left to the medium that has it.
        def decode(code)
          Piecewise.exp2(code.clip(CODE_BREAK, nil) * 17.52 - 9.72) + (code - CODE_BREAK).clip(nil, 0.0) / SLOPE
        end
      end
    end
  end
end
