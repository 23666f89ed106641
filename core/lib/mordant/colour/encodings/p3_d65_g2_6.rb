# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      P3D65G26 = Encoding.display(
        "p3-d65-g2.6",
        label: "P3-D65 · gamma 2.6",
        source: "SMPTE EG 432-1",
        primaries: Primaries::P3_D65,
        transfer: Transfer::Power.new(2.6)
      )
    end
  end
end
