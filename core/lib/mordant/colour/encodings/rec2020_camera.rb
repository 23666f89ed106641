# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Rec2020Camera = Encoding.scene(
        "rec2020-camera",
        label: "BT.2020 camera signal",
        source: "ITU-R BT.2020-2, table 4",
        primaries: Primaries::REC2020,
        transfer: Transfer::VideoCamera
      )
    end
  end
end
