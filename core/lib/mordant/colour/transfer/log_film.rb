# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Printing-density style log code: black at 95 and white at 685 of 1023,
      # 300 codes a decade. Light below the smallest normal float counts as that.
      module LogFilm
        WHITE = 685.0 # 10-bit code
        DENSITY = 300.0 # codes a decade
        BLACK_LIGHT = 10.0**((95 - 685) / 300.0) # about 0.0108
        FLOOR = 2.0**-126

        module_function

        def encode(linear)
          light = (linear * (1.0 - BLACK_LIGHT) + BLACK_LIGHT).clip(FLOOR, nil)
          (Numo::NMath.log10(light) * DENSITY + WHITE) / 1023.0
        end

        def decode(code)
          (Piecewise.exp10((code * 1023.0 - WHITE) / DENSITY) - BLACK_LIGHT) / (1.0 - BLACK_LIGHT)
        end
      end
    end
  end
end
