# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      SLog3SGamut3CineAlt = Encoding.scene(
        "s-log3-s-gamut3.cine-alt",
        label: "S-Log3 · S-Gamut3.Cine, second camera matrix",
        source: "Academy input transform for the second matrix of that gamut",
        primaries: SLog3SGamut3Cine.primaries,
        transfer: Transfer::SLog3,
        to_ap0: [
          [0.6742570921, 0.2205717359, 0.105171172], [-0.0093136061, 1.105958861, -0.0966452553],
          [-0.0382090673, -0.0179383766, 1.056147444]
        ]
      )
    end
  end
end
