# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Srgb = Encoding.display(
        "srgb",
        label: "sRGB",
        source: "IEC 61966-2-1",
        primaries: Primaries::REC709,
        transfer: Transfer::SRGB,
        signal_curve: Transfer::SRGBPublished
      )
    end
  end
end
