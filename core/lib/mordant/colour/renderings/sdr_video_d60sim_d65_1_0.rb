# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      SdrVideoD60simD6510 = Rendering.register(Rendering.new(
        id: "sdr-video-d60sim-d65-1.0", label: "ACES 1.0 · video 100 cd/m2, D60 white on D65", source: "ODT.Academy.Rec709_D60sim_100nits_dim 1.0.3",
        operations: ACES::StandardOutput.new(dim: true, simulate: ACES::SimulatedWhite.new(scale: 0.955), white: White::ACES).operations
      ))
    end
  end
end
