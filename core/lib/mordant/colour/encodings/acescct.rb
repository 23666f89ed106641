# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Acescct = Encoding.scene(
        "acescct",
        label: "ACEScct",
        source: "Academy S-2016-001",
        primaries: Primaries::AP1,
        transfer: Transfer::Acescct
      )
    end
  end
end
