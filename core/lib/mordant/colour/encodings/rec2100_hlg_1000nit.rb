# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      # Light is 1.0 at 100 cd/m2.
      Rec2100Hlg1000nit = begin
        peak = 10.0
        curve = ->(direction) { Pointwise::Curve.new(Transfer::HLG.method(direction)) }
        Encoding.register(Encoding.new(
          id: "rec2100-hlg-1000nit", label: "BT.2100 HLG, 1000 cd/m2", source: "ITU-R BT.2100-2", kind: Encoding::DISPLAY,
          primaries: Primaries::REC2020, transfer: Transfer::HLG,
          decoding: [curve[:decode], HlgDisplay.new(peak, :to_display), Pointwise::Matrix.new(Primaries::REC2020.to_xyz)],
          encoding: [Pointwise::Matrix.new(Primaries::REC2020.from_xyz), HlgDisplay.new(peak, :to_scene), curve[:encode]]
        ))
      end
    end
  end
end
