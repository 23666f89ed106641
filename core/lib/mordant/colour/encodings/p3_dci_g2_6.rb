# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      P3DciG26 = Encoding.display(
        "p3-dci-g2.6",
        label: "P3-DCI · gamma 2.6",
        source: "SMPTE RP 431-2",
        primaries: Primaries::P3_DCI,
        transfer: Transfer::Power.new(2.6)
      )
    end
  end
end
