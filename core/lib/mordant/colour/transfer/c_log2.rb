# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # C-Log2 v1.2, full-range codes; 0.9 is the reflection scale of the
      # published definition.
      module CLog2
        SCALE = 0.24136077
        OFFSET = 0.092864125
        GAIN = 87.099375
        REFLECTION = 0.9

        module_function

        def encode(linear)
          reflection = linear / REFLECTION
          log = Numo::NMath.log10(reflection.abs * GAIN + 1.0) * SCALE
          Piecewise.select(reflection < 0.0, -log, log) + OFFSET
        end

        def decode(code)
          distance = code - OFFSET
          reflection = (Piecewise.exp10(distance.abs / SCALE) - 1.0) / GAIN * REFLECTION
          Piecewise.select(distance < 0.0, -reflection, reflection)
        end
      end
    end
  end
end
