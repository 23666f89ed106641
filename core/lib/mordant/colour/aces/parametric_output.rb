# frozen_string_literal: true

module Mordant
  module Colour
    module ACES
      # The parametric output transforms of high dynamic range, to XYZ under D65
      # with 1.0 at 100 cd/m2: light is held to the limiting primaries first and
      # adapted to D65 second; black is not added back.
      #
      # Source: ACESlib.OutputTransforms.ctl 1.1, outputTransform.
      class ParametricOutput
        REFERENCE = 100.0 # cd/m2 that 1.0 stands for

        # @param black [Float] cd/m2
        # @param middle [Float] cd/m2
        # @param peak [Float] cd/m2
        # @param limit [Primaries]
        def initialize(black:, middle:, peak:, limit:)
          @tone, @peak, @limit = SingleStageToneScale.new(black:, middle:, peak:), peak, limit
        end

        # @return [Array] operations from ACES2065-1 to XYZ D65
        def operations
          adapt = Adaptation.matrix(White::ACES, White::D65)
          scaled = Matrix3.multiply(Matrix3.diagonal([@peak / REFERENCE] * 3), Matrix3.multiply(adapt, @limit.to_xyz))
          [*ReferenceRendering::OPERATIONS, Pointwise::Curve.new(@tone.method(:call)),
            Pointwise::Matrix.new(Matrix3.multiply(@limit.from_xyz, Primaries::AP1.to_xyz)), Pointwise::Clamp.new(0.0, 1.0),
            Pointwise::Matrix.new(scaled)]
        end
      end
    end
  end
end
