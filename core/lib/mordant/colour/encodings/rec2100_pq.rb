# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Rec2100Pq = Encoding.display(
        "rec2100-pq",
        label: "BT.2100 PQ",
        source: "ITU-R BT.2100, SMPTE ST 2084",
        primaries: Primaries::REC2020,
        transfer: Transfer::PQ
      )
    end
  end
end
