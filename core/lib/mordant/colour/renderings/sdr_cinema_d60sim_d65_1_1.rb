# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      SdrCinemaD60simD6511 = Rendering.register(Rendering.new(
        id: "sdr-cinema-d60sim-d65-1.1", label: "ACES 1.1 · cinema 48 cd/m2, D60 white on D65", source: "ODT.Academy.P3D65_D60sim_48nits 1.1",
        operations: ACES::StandardOutput.new(dim: false, simulate: ACES::SimulatedWhite.new(scale: 0.964), white: White::ACES).operations
      ))
    end
  end
end
