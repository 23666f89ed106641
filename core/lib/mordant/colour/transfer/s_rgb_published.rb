# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # sRGB with the constants as printed. Source: IEC 61966-2-1, 5.2.
      module SRGBPublished
        module_function

        def encode(linear)
          Piecewise.select(linear > 0.0031308, Piecewise.power(linear, 1 / 2.4) * 1.055 - 0.055, linear * 12.92)
        end

        def decode(code)
          Piecewise.select(code > 0.04045, Piecewise.power((code + 0.055) / 1.055, 2.4), code / 12.92)
        end
      end
    end
  end
end
