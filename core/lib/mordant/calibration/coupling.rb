# frozen_string_literal: true

require "matrix"

module Mordant
  module Calibration
    # What channels take from each other, or give.
    #
    # Of channel c with the two others a, b it is what is seen of it beyond its own response:
    #   d_c = sum over i, j, k of w_ijk v_c^i v_a^j v_b^k,  i = 1, 2,  1 <= j + k <= 4
    # by weighted least squares over all that was read. A channel at 0 stays there.
    class Coupling
      OWN = (1..2)
      OTHERS = (0..4).flat_map { |j| (0..4).map { |k| [j, k] } }.select { |j, k| (1..4).cover?(j + k) }.freeze
      SMALL = 1e-5 # of the sum of weights, so that what cannot be told stays near 0

      def self.none = new([nil] * 3)

      # @param rows [Array<Array>] for each channel: codes, what is seen beyond its response, and its weight
      # @return [Coupling]
      def self.fitted(rows)
        new(rows.each_with_index.map { |all, channel| solve(all, channel) })
      end

      def self.solve(all, channel)
        some = all.reject { |codes, *| codes[channel].zero? || codes.count(0.0) > 1 }
        terms = Numo::DFloat[*features(Numo::DFloat[*some.map(&:first)].transpose, channel).map(&:to_a)]
        weights = Numo::DFloat[*some.map(&:last)]
        weighted = terms * weights
        normal = weighted.dot(terms.transpose)
        right = weighted.dot(Numo::DFloat[*some.map { |_, beyond, _| beyond }])
        size = normal.shape.first
        size.times { |at| normal[at, at] += SMALL * weights.sum }
        Matrix[*normal.to_a].lup.solve(Vector[*right.to_a]).to_a
      end
      private_class_method :solve

      # @return [Array<Numo::DFloat>]
      def self.features(codes, channel)
        own, first, second = [channel, (channel + 1) % 3, (channel + 2) % 3].map { |one| codes[one, true] }
        OWN.flat_map { |i| OTHERS.map { |j, k| own**i * first**j * second**k } }
      end

      # @param weights [Array<Array<Float>, nil>] of each channel
      def initialize(weights)
        @weights = weights
        freeze
      end

      def none? = @weights.all?(&:nil?)

      # @param codes [Numo::DFloat] [3, n]
      # @return [Array<Numo::DFloat>] of each channel, beyond its response
      def beyond(codes)
        held = codes.clip(0.0, nil)
        @weights.each_with_index.map { |weights, channel| weights ? Coupling.features(held, channel).zip(weights).map { |term, weight| term * weight }.reduce(:+) : held[channel, true] * 0.0 }
      end
    end
  end
end
