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
        def initialize(dim:, limit: nil)
          @dim, @limit = dim, limit
        end

        # @return [Array] operations from ACES2065-1 to XYZ D65
        def operations
          [*ReferenceRendering::OPERATIONS, Pointwise::Curve.new(ToneScale::STANDARD), *surround, *white]
        end

        private

        def surround
          return [] unless @dim

          [Surround.new, Pointwise::Matrix.new(ACES.saturation_matrix(DIM_SATURATION))]
        end

        def white
          to_d65 = Matrix3.multiply(Adaptation.matrix(White::ACES, White::D65), Primaries::AP1.to_xyz)
          return [Pointwise::Matrix.new(to_d65)] unless @limit

          [Pointwise::Matrix.new(Matrix3.multiply(@limit.from_xyz, to_d65)),
            Pointwise::Clamp.new(0.0, 1.0),
            Pointwise::Matrix.new(@limit.to_xyz)]
        end
      end
    end
  end
end
