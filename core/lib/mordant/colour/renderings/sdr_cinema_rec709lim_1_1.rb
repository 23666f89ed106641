# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      SdrCinemaRec709lim11 = Rendering.register(Rendering.new(
        id: "sdr-cinema-rec709lim-1.1", label: "ACES 1.1 · cinema 48 cd/m2, held to BT.709", source: "ODT.Academy.P3D65_Rec709limited_48nits 1.1",
        operations: ACES::StandardOutput.new(dim: false, limit: Primaries::REC709).operations
      ))
    end
  end
end
