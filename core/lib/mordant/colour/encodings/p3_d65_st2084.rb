# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      P3D65St2084 = Encoding.display(
        "p3-d65-st2084",
        label: "P3-D65 · ST 2084",
        source: "SMPTE EG 432-1, ST 2084",
        primaries: Primaries::P3_D65,
        transfer: Transfer::PQ
      )
    end
  end
end
