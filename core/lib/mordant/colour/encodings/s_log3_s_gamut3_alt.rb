# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      SLog3SGamut3Alt = Encoding.scene(
        "s-log3-s-gamut3-alt",
        label: "S-Log3 · S-Gamut3, second camera matrix",
        source: "Academy input transform for the second matrix of that gamut",
        primaries: SLog3SGamut3.primaries,
        transfer: Transfer::SLog3,
        to_ap0: [
          [0.7933297411, 0.0890786256, 0.1175916333], [0.0155810585, 1.032712307, -0.0482933654],
          [-0.0188647478, 0.0127694121, 1.006095336]
        ]
      )
    end
  end
end
