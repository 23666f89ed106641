# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      FLogFGamut = Encoding.scene(
        "f-log-f-gamut",
        label: "F-Log · F-Gamut",
        source: "F-Log data sheet 1.0, 2016; F-Gamut is BT.2020",
        primaries: Primaries::REC2020,
        transfer: Transfer::FLog
      )
    end
  end
end
