# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      SdrCinemaD65simDci11 = Rendering.register(Rendering.new(
        id: "sdr-cinema-d65sim-dci-1.1", label: "ACES 1.1 · cinema 48 cd/m2, D65 white on DCI", source: "ODT.Academy.P3DCI_D65sim_48nits 1.1",
        operations: ACES::StandardOutput.new(dim: false, simulate: ACES::SimulatedWhite.new(scale: 0.9575, white: 0.908, width: 0.5), display: White::DCI).operations
      ))
    end
  end
end
