# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Logc4Wg4 = Encoding.scene(
        "logc4-wg4",
        label: "LogC4 · Wide Gamut 4",
        source: "LogC4 logarithmic color space specification, 2022",
        primaries: Primaries.new(
          name: "Wide Gamut 4", red: [0.7347, 0.2653], green: [0.1424, 0.8576], blue: [0.0991, -0.0308], white: White::D65
        ),
        transfer: Transfer::LogC4,
        adaptation: :cat02
      )
    end
  end
end
