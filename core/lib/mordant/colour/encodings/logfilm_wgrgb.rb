# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      LogfilmWgrgb = Encoding.scene(
        "logfilm-wgrgb",
        label: "Film log · wide gamut RGB",
        source: "Printing-density log code, 95 to 685",
        primaries: Log3g10Wgrgb.primaries,
        transfer: Transfer::LogFilm
      )
    end
  end
end
