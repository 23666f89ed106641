# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Aces20651 = Encoding.scene(
        "aces2065-1",
        label: "ACES2065-1",
        source: "SMPTE ST 2065-1",
        primaries: Primaries::AP0
      )
    end
  end
end
