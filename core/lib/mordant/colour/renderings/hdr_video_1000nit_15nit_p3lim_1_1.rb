# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      HdrVideo1000nit15nitP3lim11 = Rendering.register(Rendering.new(
        id: "hdr-video-1000nit-15nit-p3lim-1.1", label: "ACES 1.1 · HDR 1000 cd/m2, held to P3-D65", source: "RRTODT.Academy.P3_1000nits_15nits 1.1",
        operations: ACES::ParametricOutput.new(black: 0.0001, middle: 15.0, peak: 1000.0, limit: Primaries::P3_D65).operations,
        peak: 1000.0
      ))
    end
  end
end
