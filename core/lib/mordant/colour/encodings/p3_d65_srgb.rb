# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      P3D65Srgb = Encoding.display(
        "p3-d65-srgb",
        label: "P3-D65 · sRGB curve",
        source: "SMPTE EG 432-1, IEC 61966-2-1",
        primaries: Primaries::P3_D65,
        transfer: Transfer::SRGB
      )
    end
  end
end
