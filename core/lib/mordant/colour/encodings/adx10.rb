# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Adx10 = begin
        adx = Adx.new(scale: 1023.0, black: 95.0, steps: 500.0)
        Encoding.register(Encoding.new(
          id: "adx10", label: "ADX, 10 bits", source: "SMPTE ST 2065-3:2012", kind: Encoding::SCENE, primaries: Primaries::AP0,
          transfer: adx, decoding: adx.decoding, encoding: adx.encoding
        ))
      end
    end
  end
end
