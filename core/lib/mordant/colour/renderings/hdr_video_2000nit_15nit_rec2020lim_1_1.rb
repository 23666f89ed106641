# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      HdrVideo2000nit15nitRec2020lim11 = Rendering.register(Rendering.new(
        id: "hdr-video-2000nit-15nit-rec2020lim-1.1", label: "ACES 1.1 · HDR 2000 cd/m2, held to BT.2020", source: "RRTODT.Academy.Rec2020_2000nits_15nits 1.1",
        operations: ACES::ParametricOutput.new(black: 0.0001, middle: 15.0, peak: 2000.0, limit: Primaries::REC2020).operations,
        peak: 2000.0
      ))
    end
  end
end
