# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Log3G10 v3. Source: white paper on Log3G10 and wide gamut RGB, 2017.
      module Log3G10
        A = 0.224282
        B = 155.975327
        C = 0.01
        G = 15.1927

        module_function

        def encode(linear)
          shifted = linear + C
          Piecewise.select(shifted < 0.0, shifted * G, Numo::NMath.log10(shifted.clip(0.0, nil) * B + 1.0) * A)
        end

        def decode(code)
          Piecewise.select(code < 0.0, code / G, (Piecewise.exp10(code / A) - 1.0) / B) - C
        end
      end
    end
  end
end
