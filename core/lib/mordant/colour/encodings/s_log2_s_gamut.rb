# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      SLog2SGamut = Encoding.scene(
        "s-log2-s-gamut",
        label: "S-Log2 · S-Gamut",
        source: "S-Log2 technical paper, 2012; S-Gamut has the primaries of S-Gamut3",
        primaries: SLog3SGamut3.primaries,
        transfer: Transfer::SLog2.new(155.0 / 219),
        adaptation: :cat02
      )
    end
  end
end
