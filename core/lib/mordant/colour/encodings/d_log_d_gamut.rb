# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      DLogDGamut = Encoding.scene(
        "d-log-d-gamut",
        label: "D-Log · D-Gamut",
        source: "White paper on D-Log and D-Gamut, 2017",
        primaries: Primaries.new(
          name: "D-Gamut", red: [0.71, 0.31], green: [0.21, 0.88], blue: [0.09, -0.08], white: White::D65
        ),
        transfer: Transfer::DLog
      )
    end
  end
end
