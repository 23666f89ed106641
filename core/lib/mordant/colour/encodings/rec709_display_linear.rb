# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Rec709DisplayLinear = Encoding.display(
        "rec709-display-linear",
        label: "BT.709 display light, linear",
        source: "ITU-R BT.709",
        primaries: Primaries::REC709,
        transfer: Transfer::Linear
      )
    end
  end
end
