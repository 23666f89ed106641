# frozen_string_literal: true

module Mordant
  module Colour
    module Renderings
      SdrCinema10 = Rendering.register(Rendering.new(
        id: "sdr-cinema-1.0", label: "ACES 1.0 · cinema 48 cd/m2", source: "ODT.Academy.P3D60_48nits 1.0.3",
        operations: ACES::StandardOutput.new(dim: false).operations
      ))
    end
  end
end
