# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      FilmGen5WideGamutGen5 = Encoding.scene(
        "film-gen5-wide-gamut-gen5",
        label: "Film, generation 5 · Wide Gamut, generation 5",
        source: "White paper on the generation 5 colour science, 2021",
        primaries: Primaries.new(
          name: "Wide Gamut, generation 5", red: [0.7177215, 0.3171181], green: [0.2280410, 0.8615690], blue: [0.1005841, -0.0820452], white: [0.3127170, 0.3290312]
        ),
        transfer: Transfer::FilmGen5
      )
    end
  end
end
