# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      SdrVideo10 = Rendering.register(Rendering.new(
        id: "sdr-video-1.0", label: "ACES 1.0 · video 100 cd/m2", source: "ODT.Academy.Rec709_100nits_dim 1.0.3",
        operations: ACES::StandardOutput.new(dim: true).operations
      ))
    end
  end
end
