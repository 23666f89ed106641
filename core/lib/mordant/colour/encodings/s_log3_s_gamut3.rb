# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      SLog3SGamut3 = Encoding.scene(
        "s-log3-s-gamut3",
        label: "S-Log3 · S-Gamut3",
        source: "Technical summary for S-Gamut3/S-Log3",
        primaries: Primaries.new(
          name: "S-Gamut3", red: [0.730, 0.280], green: [0.140, 0.855], blue: [0.100, -0.050], white: White::D65
        ),
        transfer: Transfer::SLog3,
        adaptation: :cat02
      )
    end
  end
end
