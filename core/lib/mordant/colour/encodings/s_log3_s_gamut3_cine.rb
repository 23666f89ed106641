# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      SLog3SGamut3Cine = Encoding.scene(
        "s-log3-s-gamut3.cine",
        label: "S-Log3 · S-Gamut3.Cine",
        source: "Technical summary for S-Gamut3.Cine/S-Log3",
        primaries: Primaries.new(
          name: "S-Gamut3.Cine", red: [0.766, 0.275], green: [0.225, 0.800], blue: [0.089, -0.087], white: White::D65
        ),
        transfer: Transfer::SLog3,
        adaptation: :cat02
      )
    end
  end
end
