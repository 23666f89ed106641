# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      NLogNGamut = Encoding.scene(
        "n-log-n-gamut",
        label: "N-Log · N-Gamut",
        source: "N-Log specification document 1.0.0, 2018; N-Gamut is BT.2020",
        primaries: Primaries::REC2020,
        transfer: Transfer::NLog
      )
    end
  end
end
