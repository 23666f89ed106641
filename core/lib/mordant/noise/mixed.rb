# frozen_string_literal: true

module Mordant
  module Noise
    # Planes that are made of several samples, and how much of the noise is left in them.
    #
    #   m = f + a (sum(w_k f_k) / sum(w_k) - f)
    #   left = (1 - a + a / W)^2 + a^2 (sum(w_k^2) - 1) / W^2     W = sum(w_k), of f itself 1
    #
    # planes: Array of Numo::SFloat [n]; left: as many, shares of the variance of noise, or nil: all of it.
    Mixed = Struct.new(:planes, :left, keyword_init: true) do
      # @param planes [Array<Numo::SFloat>] [n] f
      # @param sums [Array<Numo::SFloat>] [n] of each, by weight
      # @param weight [Numo::SFloat] [n] W
      # @param squares [Numo::SFloat] [n] of the weights
      # @param strengths [Array<Float>] of each plane; a is 1 at most
      # @return [Mixed]
      def self.of(planes, sums, weight, squares, strengths)
        shares = strengths.map { |strength| [strength, 1.0].min }
        lefts = shares.uniq.to_h { |share| [share, left(weight, squares, share)] }
        made = planes.zip(sums, shares).map { |plane, sum, share| (share == 1.0) ? sum / weight : plane + (sum / weight - plane) * share }
        new(planes: made, left: shares.map { |share| lefts[share] })
      end

      def self.left(weight, squares, share)
        return squares / (weight * weight) if share == 1.0

        (1.0 / weight * share + (1.0 - share))**2 + (squares - 1.0) / (weight * weight) * share**2
      end
      private_class_method :left
    end
  end
end
