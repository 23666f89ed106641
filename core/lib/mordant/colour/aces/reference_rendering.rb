# frozen_string_literal: true

module Mordant
  module Colour
    module ACES
      # The reference rendering up to its tone curve. Source: RRT.ctl 1.0.3.
      module ReferenceRendering
        SATURATION = 0.96
        POSITIVE = Pointwise::Clamp.new(0.0, nil)

        # Operations from ACES2065-1 to AP1 light ready for the tone curve.
        OPERATIONS = [
          Sweeteners.new, POSITIVE, Pointwise::Matrix.new(AP0_TO_AP1), POSITIVE,
          Pointwise::Matrix.new(ACES.saturation_matrix(SATURATION))
        ].freeze
      end
    end
  end
end
