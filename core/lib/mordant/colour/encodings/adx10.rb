# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Adx10 = Adx.register("adx10", label: "ADX, 10 bits", scale: 1023.0, black: 95.0, steps: 500.0)
    end
  end
end
