# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # C-Log3 v1.2, full-range codes; 0.9 is the reflection scale of the
      # published definition.
      module CLog3
        SCALE = 0.36726845
        GAIN = 14.98325
        NEGATIVE_OFFSET = 0.12783901
        POSITIVE_OFFSET = 0.12240537
        LINEAR_OFFSET = 0.12512219
        LINEAR_SLOPE = 1.9754798
        CODE_LOW = 0.097465473
        CODE_HIGH = 0.15277891
        LINEAR_LIMIT = 0.014 # reflection on either side of the straight part
        REFLECTION = 0.9

        module_function

        def encode(linear)
          reflection = linear / REFLECTION
          log = Numo::NMath.log10(reflection.abs * GAIN + 1.0) * SCALE
          code = Piecewise.select(reflection < -LINEAR_LIMIT, -log + NEGATIVE_OFFSET, log + POSITIVE_OFFSET)
          Piecewise.select(reflection.abs <= LINEAR_LIMIT, reflection * LINEAR_SLOPE + LINEAR_OFFSET, code)
        end

        def decode(code)
          low = (1.0 - Piecewise.exp10((-code + NEGATIVE_OFFSET) / SCALE)) / GAIN
          high = (Piecewise.exp10((code - POSITIVE_OFFSET) / SCALE) - 1.0) / GAIN
          straight = (code - LINEAR_OFFSET) / LINEAR_SLOPE
          Piecewise.select(code < CODE_LOW, low, Piecewise.select(code <= CODE_HIGH, straight, high)) * REFLECTION
        end
      end
    end
  end
end
