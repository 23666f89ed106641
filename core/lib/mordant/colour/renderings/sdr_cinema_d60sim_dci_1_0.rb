# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      SdrCinemaD60simDci10 = Rendering.register(Rendering.new(
        id: "sdr-cinema-d60sim-dci-1.0", label: "ACES 1.0 · cinema 48 cd/m2, D60 white on DCI", source: "ODT.Academy.P3DCI_48nits 1.0.3",
        operations: ACES::StandardOutput.new(dim: false, simulate: ACES::SimulatedWhite.new(scale: 0.96, white: 0.918, width: 0.5), white: White::ACES, display: White::DCI).operations
      ))
    end
  end
end
