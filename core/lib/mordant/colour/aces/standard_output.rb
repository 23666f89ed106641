# frozen_string_literal: true

module Mordant
  module Colour
    module ACES
      # The output transforms of 48 cd/m2 cinema and 100 cd/m2 video, to XYZ
      # under D65 with 1.0 at display white.
      #
      # Source: ODT.Academy.*_48nits/_100nits*.ctl 1.0.3 and 1.1.
      class StandardOutput
        DIM_SATURATION = 0.93

        # @param dim [Boolean] for video in a dim surround
        # @param limit [Primaries, nil] gamut whose 0..1 the light is held to
        # @param simulate [SimulatedWhite, nil] a white other than the display's
        # @param white [Array<Float>] xy of the white shown for ACES white
        # @param display [Array<Float>] xy of the display's own white
        def initialize(dim:, limit: nil, simulate: nil, white: White::D65, display: White::D65)
          @dim, @limit, @simulate, @white, @display = dim, limit, simulate, white, display
        end

        # @return [Array] operations from ACES2065-1 to XYZ D65
        def operations
          [*ReferenceRendering::OPERATIONS, Pointwise::Curve.new(ToneScale::STANDARD), *@simulate&.operations, *surround, *limited]
        end

        private

        def surround
          return [] unless @dim

          [Surround.new, Pointwise::Matrix.new(ACES.saturation_matrix(DIM_SATURATION))]
        end

        # Whites adapt first, the limiting gamut holds second; light of the display's
        # own white is then seen from D65, the white of the connection space.
        def limited
          shown = Matrix3.multiply(Adaptation.matrix(White::ACES, @white), Primaries::AP1.to_xyz)
          connect = Adaptation.matrix(@display, White::D65)
          return [Pointwise::Matrix.new(Matrix3.multiply(connect, shown))] unless @limit

          [Pointwise::Matrix.new(Matrix3.multiply(@limit.from_xyz, shown)), Pointwise::Clamp.new(0.0, 1.0),
            Pointwise::Matrix.new(Matrix3.multiply(connect, @limit.to_xyz))]
        end
      end
    end
  end
end
