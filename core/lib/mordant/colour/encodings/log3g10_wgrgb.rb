# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Log3g10Wgrgb = Encoding.scene(
        "log3g10-wgrgb",
        label: "Log3G10 · wide gamut RGB",
        source: "White paper on Log3G10 and wide gamut RGB, 2017",
        primaries: Primaries.new(
          name: "Wide gamut RGB", red: [0.780308, 0.304253], green: [0.121595, 1.493994], blue: [0.095612, -0.084589], white: White::D65
        ),
        transfer: Transfer::Log3G10
      )
    end
  end
end
