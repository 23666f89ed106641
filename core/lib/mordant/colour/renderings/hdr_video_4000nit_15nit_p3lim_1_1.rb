# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      HdrVideo4000nit15nitP3lim11 = Rendering.register(Rendering.new(
        id: "hdr-video-4000nit-15nit-p3lim-1.1", label: "ACES 1.1 · HDR 4000 cd/m2, held to P3-D65", source: "RRTODT.Academy.P3_4000nits_15nits 1.1",
        operations: ACES::ParametricOutput.new(black: 0.0001, middle: 15.0, peak: 4000.0, limit: Primaries::P3_D65).operations,
        peak: 4000.0
      ))
    end
  end
end
