# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      HdrVideo1000nit15nitRec2020lim11 = Rendering.register(Rendering.new(
        id: "hdr-video-1000nit-15nit-rec2020lim-1.1", label: "ACES 1.1 · HDR 1000 cd/m2, held to BT.2020", source: "RRTODT.Academy.Rec2020_1000nits_15nits 1.1",
        operations: ACES::ParametricOutput.new(black: 0.0001, middle: 15.0, peak: 1000.0, limit: Primaries::REC2020).operations,
        peak: 1000.0
      ))
    end
  end
end
