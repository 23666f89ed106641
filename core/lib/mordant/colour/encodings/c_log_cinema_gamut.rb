# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      CLogCinemaGamut = Encoding.scene(
        "c-log-cinema-gamut",
        label: "C-Log · Cinema Gamut",
        source: "C-Log gamma curve white paper v1.2",
        primaries: CLog2CinemaGamut.primaries,
        transfer: Transfer::CLog,
        adaptation: :cat02
      )
    end
  end
end
