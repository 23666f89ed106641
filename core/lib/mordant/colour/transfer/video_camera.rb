# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # The camera side of television: scene light to signal, odd below 0.
      #
      # Source: ITU-R BT.709-6, 1.2; BT.2020-2, table 4, with the constants of 12 bits
      # and more, at which the pieces meet.
      module VideoCamera
        ALPHA = 1.09929682680944
        BETA = 0.018053968510807

        module_function

        def encode(linear)
          light = linear.abs
          curve = Piecewise.power(light, 0.45) * ALPHA - (ALPHA - 1)
          Piecewise.select(light < BETA, light * 4.5, curve) * linear.sign
        end

        def decode(code)
          signal = code.abs
          light = Piecewise.power((signal + (ALPHA - 1)) / ALPHA, 1 / 0.45)
          Piecewise.select(signal < BETA * 4.5, signal / 4.5, light) * code.sign
        end
      end
    end
  end
end
