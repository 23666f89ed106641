# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Adx16 = begin
        adx = Adx.new(scale: 65_535.0, black: 1520.0, steps: 8000.0)
        Encoding.register(Encoding.new(
          id: "adx16", label: "ADX, 16 bits", source: "SMPTE ST 2065-3:2012", kind: Encoding::SCENE, primaries: Primaries::AP0,
          transfer: adx, decoding: adx.decoding, encoding: adx.encoding
        ))
      end
    end
  end
end
