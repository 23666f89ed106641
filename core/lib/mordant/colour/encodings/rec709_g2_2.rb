# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Rec709G22 = Encoding.display(
        "rec709-g2.2",
        label: "BT.709 · gamma 2.2",
        source: "ITU-R BT.709",
        primaries: Primaries::REC709,
        transfer: Transfer::Power.new(2.2)
      )
    end
  end
end
