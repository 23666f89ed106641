# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Adx16 = Adx.register("adx16", label: "ADX, 16 bits", scale: 65_535.0, black: 1520.0, steps: 8000.0)
    end
  end
end
