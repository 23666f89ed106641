# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      FLog2FGamut = Encoding.scene(
        "f-log2-f-gamut",
        label: "F-Log2 · F-Gamut",
        source: "F-Log2 data sheet 1.0, 2022; F-Gamut is BT.2020",
        primaries: Primaries::REC2020,
        transfer: Transfer::FLog2
      )
    end
  end
end
