# frozen_string_literal: true

module Mordant
  module Colour
    # Parts of the ACES 1.x reference rendering and its output transforms.
    #
    # Source: Academy aces-dev 1.0.3 to 1.3: lib/ACESlib.RRT_Common.ctl,
    # ACESlib.Tonescales.ctl, ACESlib.ODT_Common.ctl.
    module ACES
      # Luminance weights of AP1 (second row of AP1 to XYZ).
      LUMINANCE = Primaries::AP1.to_xyz[1].freeze

      AP0_TO_AP1 = Primaries::AP0.to(Primaries::AP1).freeze

      module_function

      # @param saturation [Float] 1.0 changes nothing
      # @return [Array<Array<Float>>] towards AP1 luminance
      def saturation_matrix(saturation)
        Array.new(3) { |i| Array.new(3) { |j| (1 - saturation) * LUMINANCE[j] + ((i == j) ? saturation : 0.0) } }
      end
    end
  end
end
