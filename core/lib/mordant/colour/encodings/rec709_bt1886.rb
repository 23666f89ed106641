# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Rec709Bt1886 = Encoding.display(
        "rec709-bt1886",
        label: "BT.709 · gamma 2.4",
        source: "ITU-R BT.709, BT.1886",
        primaries: Primaries::REC709,
        transfer: Transfer::Power.new(2.4)
      )
    end
  end
end
