# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      CLog3CinemaGamut = Encoding.scene(
        "c-log3-cinema-gamut",
        label: "C-Log3 · Cinema Gamut",
        source: "C-Log3 and Cinema Gamut specification, v1.2",
        primaries: CLog2CinemaGamut.primaries,
        transfer: Transfer::CLog3,
        adaptation: :cat02
      )
    end
  end
end
