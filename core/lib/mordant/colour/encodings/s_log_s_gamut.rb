# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      SLogSGamut = Encoding.scene(
        "s-log-s-gamut",
        label: "S-Log · S-Gamut",
        source: "S-Log white paper, 2009; S-Gamut has the primaries of S-Gamut3",
        primaries: SLog3SGamut3.primaries,
        transfer: Transfer::SLog2.new(1.0),
        adaptation: :cat02
      )
    end
  end
end
