# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      P3D60G26 = Encoding.display(
        "p3-d60-g2.6",
        label: "P3-D60 · gamma 2.6",
        source: "SMPTE EG 432-1, ACES white",
        primaries: Primaries::P3_D60,
        transfer: Transfer::Power.new(2.6)
      )
    end
  end
end
