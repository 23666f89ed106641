# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Source: Academy S-2014-003, ACEScc, 4.4. Light below 0 takes the code of 0.
      module Acescc
        LARGEST = 65_504.0 # of a half float
        LINEAR_BREAK = 2.0**-15
        CODE_BREAK = (9.72 - 15) / 17.52
        CODE_LARGEST = (Math.log2(LARGEST) + 9.72) / 17.52

        module_function

        def encode(linear)
          low = linear.clip(0.0, LINEAR_BREAK) * 0.5 + 2.0**-16
          light = Piecewise.select(linear < LINEAR_BREAK, low, linear)
          (Numo::NMath.log2(light) + 9.72) / 17.52
        end

        def decode(code)
          light = Piecewise.exp2(code.clip(nil, CODE_LARGEST) * 17.52 - 9.72)
          Piecewise.select(code < CODE_BREAK, (light - 2.0**-16) * 2, light.clip(nil, LARGEST))
        end
      end
    end
  end
end
