# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Perceptual quantiser: absolute luminance to code value and back.
      #
      # Source: SMPTE ST 2084:2014; ITU-R BT.2100, reference PQ.
      # Units: light with 1.0 at 100 cd/m2, 0.0..100.0; code 0.0..1.0, full range.
      # Light outside is held to the ends. NaN stays NaN.
      module PQ
        PEAK = 100.0 # 10_000 cd/m2
        M1 = 2610.0 / 16_384
        M2 = 2523.0 / 4096 * 128
        C1 = 3424.0 / 4096
        C2 = 2413.0 / 4096 * 32
        C3 = 2392.0 / 4096 * 32

        module_function

        def encode(linear)
          y = (linear / PEAK).clip(0.0, 1.0)**M1
          ((y * C2 + C1) / (y * C3 + 1.0))**M2
        end

        def decode(code)
          n = code.clip(0.0, nil)**(1 / M2)
          ((n - C1).clip(0.0, nil) / (C2 - n * C3))**(1 / M1) * PEAK
        end
      end
    end
  end
end
