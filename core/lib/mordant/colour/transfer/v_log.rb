# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # V-Log. Source: V-Log/V-Gamut reference manual, 2014, 2.
      module VLog
        CUT = 0.01
        CODE_CUT = 0.181
        B = 0.00873
        C = 0.241514
        D = 0.598206

        module_function

        def encode(linear)
          log = Numo::NMath.log10(linear.clip(CUT, nil) + B) * C + D
          Piecewise.select(linear < CUT, linear * 5.6 + 0.125, log)
        end

        def decode(code)
          Piecewise.select(code < CODE_CUT, (code - 0.125) / 5.6, Piecewise.exp10((code - D) / C) - B)
        end
      end
    end
  end
end
