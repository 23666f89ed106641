# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      SdrVideoRec709lim11 = Rendering.register(Rendering.new(
        id: "sdr-video-rec709lim-1.1", label: "ACES 1.1 · video 100 cd/m2, held to BT.709", source: "ODT.Academy.Rec2020_Rec709limited_100nits_dim 1.1",
        operations: ACES::StandardOutput.new(dim: true, limit: Primaries::REC709).operations
      ))
    end
  end
end
