# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # ACESproxy, 10 bits, as codes / 1023, not rounded; codes are held to 64..940.
      #
      # Source: Academy S-2013-001, 5.
      module Acesproxy10
        LOWEST = 64.0
        HIGHEST = 940.0
        MIDDLE = 425.0
        OFFSET = 2.5 # log2
        STEPS = 50.0 # codes a stop

        module_function

        def encode(linear)
          code = (Numo::NMath.log2(linear.clip(2.0**-30, nil)) + OFFSET) * STEPS + MIDDLE
          code.clip(LOWEST, HIGHEST) / 1023.0
        end

        def decode(code) = Piecewise.exp2((code * 1023.0 - MIDDLE) / STEPS - OFFSET)
      end
    end
  end
end
