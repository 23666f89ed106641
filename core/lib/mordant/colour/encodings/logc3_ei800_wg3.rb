# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Logc3Ei800Wg3 = Encoding.scene(
        "logc3-ei800-wg3",
        label: "LogC3 EI 800 · Wide Gamut 3",
        source: "LogC curve white paper, 2017",
        primaries: Primaries.new(
          name: "Wide Gamut 3", red: [0.684, 0.313], green: [0.221, 0.848], blue: [0.0861, -0.102], white: White::D65
        ),
        transfer: Transfer::LogC3,
        adaptation: :cat02
      )
    end
  end
end
