# frozen_string_literal: true

module Mordant
  module Noise
    # Takes from each detail of a plane what noise has put there: the share that is left is Wiener's, by the energy of its
    # neighbourhood.
    #
    #   d' = d max(0, 1 - k s^2 / E)     E: mean of d^2 about it, s^2: variance of noise at its size and level
    #
    # Source: M. K. Mihcak, I. Kozintsev, K. Ramchandran, P. Moulin, Low-complexity image denoising based on statistical modeling of wavelet
    # coefficients, IEEE Signal Process. Lett. 6 (1999).
    module Shrinkage
      NEAR = [1.0, 1.0].freeze # taps of the neighbourhood
      MORE = 1.15 # k: of noise is taken somewhat more than its mean

      module_function

      # @param plane [Numo::SFloat] [n]
      # @param window [Grade::Window]
      # @param strength [Float] times the noise that there is
      # @yieldparam scale [Integer]
      # @yieldreturn [Numo::SFloat] [n] variances of its noise
      # @return [Numo::SFloat] [n]
      def of(plane, window, strength)
        parts, rest = Details.of(plane, window)
        parts.each_with_index.reduce(rest) do |sum, (detail, scale)|
          energy = Area::Taps.new(NEAR, apart: [2**scale / 2, 1].max).call(detail * detail, window)
          noise = yield(scale) * (MORE * strength * strength)
          sum + detail * ((energy - noise) / (energy + Profile::LEAST)).clip(0.0, 1.0)
        end
      end
    end
  end
end
