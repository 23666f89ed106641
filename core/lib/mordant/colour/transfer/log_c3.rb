# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # LogC3 at exposure index 800. Source: LogC curve white paper, 2012-2017,
      # table of linear scene exposure parameters, EI 800.
      module LogC3
        CUT = 0.010591
        A = 5.555556
        B = 0.052272
        C = 0.247190
        D = 0.385537
        E = 5.367655
        F = 0.092809

        module_function

        def encode(linear)
          log = Numo::NMath.log10((linear * A + B).clip(1e-10, nil)) * C + D
          Piecewise.select(linear > CUT, log, linear * E + F)
        end

        def decode(code)
          Piecewise.select(code > E * CUT + F, (Piecewise.exp10((code - D) / C) - B) / A, (code - F) / E)
        end
      end
    end
  end
end
