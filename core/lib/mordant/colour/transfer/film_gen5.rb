# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Film, generation 5: a natural logarithm over a straight line.
      #
      # Source: white paper on the generation 5 colour science, 2021.
      module FilmGen5
        A = 0.08692876065491224
        B = 0.005494072432257808
        C = 0.5300133392291939
        D = 8.283605932402494
        E = 0.09246575342465753
        CUT = 0.005

        module_function

        def encode(linear)
          log = Numo::NMath.log(linear.clip(CUT, nil) + B) * A + C
          Piecewise.select(linear < CUT, linear * D + E, log)
        end

        def decode(code)
          Piecewise.select(code < D * CUT + E, (code - E) / D, Numo::NMath.exp((code - C) / A) - B)
        end
      end
    end
  end
end
