# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Rec2020Linear = Encoding.scene(
        "rec2020-linear",
        label: "BT.2020 primaries, linear",
        source: "ITU-R BT.2020",
        primaries: Primaries::REC2020
      )
    end
  end
end
