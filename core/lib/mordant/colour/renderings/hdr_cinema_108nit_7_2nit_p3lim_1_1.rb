# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      HdrCinema108nit72nitP3lim11 = Rendering.register(Rendering.new(
        id: "hdr-cinema-108nit-7.2nit-p3lim-1.1", label: "ACES 1.1 · HDR cinema 108 cd/m2, held to P3-D65", source: "RRTODT.Academy.P3D65_108nits_7.2nits 1.1",
        operations: ACES::ParametricOutput.new(black: 0.0001, middle: 7.2, peak: 108.0, limit: Primaries::P3_D65).operations,
        peak: 108.0
      ))
    end
  end
end
