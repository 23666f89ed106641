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
          log = Numo::NMath.log(linear.clip(BREAK, nil))
          log.inplace * (1 / Math.log(2) / 17.52)
          log.inplace + 9.72 / 17.52
          add(log, linear, BREAK, SLOPE)
        end

        # The published ceiling of 65_504 is left to the medium that has it.
        def decode(code)
          log = code.clip(CODE_BREAK, nil)
          log.inplace * (17.52 * Math.log(2))
          log.inplace - 9.72 * Math.log(2)
          add(Numo::NMath.exp(log.out_of_place!), code, CODE_BREAK, 1 / SLOPE)
        end

        # The straight line below the break, on top of what is held there.
        def add(curve, x, from, slope)
          below = x - from
          below.inplace.clip(nil, 0.0)
          below.inplace * slope
          (curve.inplace + below.out_of_place!).out_of_place!
        end
      end
    end
  end
end
