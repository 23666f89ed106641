# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      CLog2CinemaGamut = Encoding.scene(
        "c-log2-cinema-gamut",
        label: "C-Log2 · Cinema Gamut",
        source: "C-Log2 and Cinema Gamut specification, v1.2",
        primaries: Primaries.new(
          name: "Cinema Gamut", red: [0.74, 0.27], green: [0.17, 1.14], blue: [0.08, -0.1], white: White::D65
        ),
        transfer: Transfer::CLog2,
        adaptation: :cat02
      )
    end
  end
end
