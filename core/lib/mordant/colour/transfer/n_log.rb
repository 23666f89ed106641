# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # N-Log: a cube root in the shadows, a natural logarithm above.
      #
      # Source: N-Log specification document 1.0.0, 2018. Its cut in codes is rounded to a
      # whole one, as printed. The root is odd about -0.0075.
      module NLog
        CUT = 0.328
        CODE_CUT = 452.0 / 1023
        SHADOW = 650.0 / 1023
        SHIFT = 0.0075
        SCALE = 150.0 / 1023
        OFFSET = 619.0 / 1023

        module_function

        def encode(linear)
          root = linear + SHIFT
          shadow = Numo::NMath.cbrt(root) * SHADOW
          Piecewise.select(linear < CUT, shadow, Numo::NMath.log(linear.clip(CUT, nil)) * SCALE + OFFSET)
        end

        def decode(code)
          shadow = (code / SHADOW)**3 - SHIFT
          Piecewise.select(code < CODE_CUT, shadow, Numo::NMath.exp((code - OFFSET) / SCALE))
        end
      end
    end
  end
end
