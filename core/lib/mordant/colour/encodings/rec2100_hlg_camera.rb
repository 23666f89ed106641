# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      Rec2100HlgCamera = Encoding.scene(
        "rec2100-hlg-camera",
        label: "BT.2100 HLG camera signal",
        source: "ITU-R BT.2100-2, table 5; BT.2408-7 for diffuse white",
        primaries: Primaries::REC2020,
        transfer: Transfer::HlgCamera
      )
    end
  end
end
