# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # S-Log3. Source: technical summary for S-Gamut3.Cine/S-Log3 and
      # S-Gamut3/S-Log3, appendix.
      module SLog3
        CUT = 0.01125000
        CODE_CUT = 171.2102946929 / 1023

        module_function

        def encode(linear)
          log = (Numo::NMath.log10((linear.clip(CUT, nil) + 0.01) / (0.18 + 0.01)) * 261.5 + 420) / 1023
          straight = (linear * ((171.2102946929 - 95) / CUT) + 95) / 1023
          Piecewise.select(linear >= CUT, log, straight)
        end

        def decode(code)
          log = Piecewise.exp10((code * 1023 - 420) / 261.5) * (0.18 + 0.01) - 0.01
          straight = (code * 1023 - 95) * CUT / (171.2102946929 - 95)
          Piecewise.select(code >= CODE_CUT, log, straight)
        end
      end
    end
  end
end
