# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Rec709Camera = Encoding.scene(
        "rec709-camera",
        label: "BT.709 camera signal",
        source: "ITU-R BT.709-6, 1.2",
        primaries: Primaries::REC709,
        transfer: Transfer::VideoCamera
      )
    end
  end
end
