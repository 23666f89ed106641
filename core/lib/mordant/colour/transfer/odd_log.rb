# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # A logarithm that is odd about its black code, as C-Log and C-Log2 are:
      #
      #   code = scale * log10(gain * reflection + 1) + offset
      #
      # with reflection = light / 0.9 by the published definition. Full-range codes.
      class OddLog
        REFLECTION = 0.9

        def initialize(scale:, gain:, offset:)
          @scale, @gain, @offset = scale, gain, offset
          freeze
        end

        def encode(linear)
          log = Numo::NMath.log10(linear.abs * (@gain / REFLECTION) + 1.0) * @scale
          Piecewise.select(linear < 0.0, -log, log) + @offset
        end

        def decode(code)
          distance = code - @offset
          light = (Piecewise.exp10(distance.abs / @scale) - 1.0) * (REFLECTION / @gain)
          Piecewise.select(distance < 0.0, -light, light)
        end
      end
    end
  end
end
