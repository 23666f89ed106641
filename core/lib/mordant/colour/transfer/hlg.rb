# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Hybrid log-gamma, scene light 0..1 to signal 0..1; odd below 0.
      #
      # Source: ITU-R BT.2100-2, table 5, reference OETF.
      module HLG
        A = 0.17883277
        B = 1 - 4 * A
        C = 0.5 - A * Math.log(4 * A)

        module_function

        def encode(linear)
          light = linear.abs
          log = Numo::NMath.log((light * 12 - B).clip(1e-10, nil)) * A + C
          Piecewise.select(light <= 1.0 / 12, Numo::NMath.sqrt(light * 3), log) * linear.sign
        end

        def decode(code)
          signal = code.abs
          Piecewise.select(signal <= 0.5, signal * signal / 3, (Numo::NMath.exp((signal - C) / A) + B) / 12) * code.sign
        end
      end
    end
  end
end
