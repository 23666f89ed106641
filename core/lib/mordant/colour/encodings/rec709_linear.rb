# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Rec709Linear = Encoding.scene(
        "rec709-linear",
        label: "BT.709 primaries, linear",
        source: "ITU-R BT.709",
        primaries: Primaries::REC709
      )
    end
  end
end
