# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      VLogVGamut = Encoding.scene(
        "v-log-v-gamut",
        label: "V-Log · V-Gamut",
        source: "V-Log/V-Gamut reference manual, 2014",
        primaries: Primaries.new(
          name: "V-Gamut", red: [0.730, 0.280], green: [0.165, 0.840], blue: [0.100, -0.030], white: White::D65
        ),
        transfer: Transfer::VLog
      )
    end
  end
end
