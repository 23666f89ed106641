# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Rec2020Bt1886 = Encoding.display(
        "rec2020-bt1886",
        label: "BT.2020 · gamma 2.4",
        source: "ITU-R BT.2020, BT.1886",
        primaries: Primaries::REC2020,
        transfer: Transfer::Power.new(2.4)
      )
    end
  end
end
