# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # sRGB with the constants that make its slope continuous; straight below 0.
      # Source: IEC 61966-2-1, the pair (0.055, 2.4) with the break at 0.055 / 1.4.
      module SRGB
        A = 0.055
        GAMMA = 2.4
        CODE_BREAK = A / (GAMMA - 1)
        SLOPE = CODE_BREAK / (((CODE_BREAK + A) / (1 + A))**GAMMA)
        BREAK = CODE_BREAK / SLOPE

        module_function

        def encode(linear)
          Piecewise.select(linear > BREAK, Piecewise.power(linear, 1 / GAMMA) * (1 + A) - A, linear * SLOPE)
        end

        def decode(code)
          Piecewise.select(code > CODE_BREAK, Piecewise.power((code + A) / (1 + A), GAMMA), code / SLOPE)
        end
      end
    end
  end
end
