# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      SdrVideoP3lim11 = Rendering.register(Rendering.new(
        id: "sdr-video-p3lim-1.1", label: "ACES 1.1 · video 100 cd/m2, held to P3-D65", source: "ODT.Academy.Rec2020_P3D65limited_100nits_dim 1.1",
        operations: ACES::StandardOutput.new(dim: true, limit: Primaries::P3_D65).operations
      ))
    end
  end
end
