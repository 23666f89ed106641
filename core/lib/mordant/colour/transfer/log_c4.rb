# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # LogC4, one curve for every exposure index.
      #
      # Source: LogC4 logarithmic color space specification, 2022, 4.
      module LogC4
        A = (2**18 - 16) / 117.45
        B = (1023 - 95) / 1023.0
        C = 95 / 1023.0
        S = 7 * Math.log(2) * 2**(7 - 14 * C / B) / (A * B)
        T = (2**(14 * (-C / B) + 6) - 64) / A # light of code 0

        module_function

        def encode(linear)
          log = (Numo::NMath.log2(linear.clip(T, nil) * A + 64) - 6) / 14 * B + C
          Piecewise.select(linear < T, (linear - T) / S, log)
        end

        def decode(code)
          log = (Piecewise.exp2((code - C) / B * 14 + 6) - 64) / A
          Piecewise.select(code < 0.0, code * S + T, log)
        end
      end
    end
  end
end
