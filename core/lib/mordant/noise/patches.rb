# frozen_string_literal: true

module Mordant
  module Noise
    # Pixels made of others near them whose surroundings are alike: patches are compared in all planes, relative to the noise.
    #
    #   out(x) = sum(w(x, y) f(y)) / sum(w(x, y)),   w = exp(-max(D - 1, 0) / SOFT),   D: mean over a patch of (f(x) - f(y))^2 / (2 s^2)
    #
    # Source: A. Buades, B. Coll, J.-M. Morel, A non-local algorithm for image denoising, CVPR 2005.
    class Patches
      REACH = 3 # pixels
      PATCH = [1.0, 1.0].freeze # taps
      SOFT = 0.5
      ALIKE = 1.3 # what is left is chosen for being alike, and so more than a mean of chance would be

      def initialize(window, variances, strengths:)
        @window, @variances, @strengths = window, variances, strengths
      end

      def self.margin = REACH + PATCH.size - 1

      # @param planes [Array<Numo::SFloat>]
      # @return [Temporal::Made]
      def call(planes)
        sums, weight, squares = planes.map(&:dup), Numo::SFloat.ones(@window.size), Numo::SFloat.ones(@window.size)
        wide = planes.map { |plane| padded(plane) }
        shifts.each do |down, across|
          others = wide.map { |plane| moved(plane, down, across) }
          share = alike(planes, others)
          add(sums, weight, squares, others, share)
          add(sums, weight, squares, wide.map { |plane| moved(plane, -down, -across) }, moved(padded(share), -down, -across))
        end
        made = sums.map { |sum| sum.out_of_place! / weight }
        Temporal::Made.new(planes: made.zip(planes, @strengths).map { |one, plane, strength| plane + (one - plane) * [strength, 1.0].min }, left: (squares.out_of_place! / (weight * weight) * ALIKE).clip(0.0, 1.0))
      end

      private

      # One of each pair that lie opposite.
      def shifts = (0..REACH).to_a.product((-REACH..REACH).to_a).select { |down, across| down.positive? || across.positive? }

      # With edges that go on as they end.
      def padded(plane)
        rows = Numo::SFloat.new(@window.height + 2 * REACH, @window.width + 2 * REACH).allocate
        rows[REACH...-REACH, REACH...-REACH] = plane.reshape(@window.height, @window.width)
        rows[REACH...-REACH, 0...REACH] = rows[REACH...-REACH, REACH..REACH]
        rows[REACH...-REACH, -REACH..-1] = rows[REACH...-REACH, (-REACH - 1)..(-REACH - 1)]
        rows[0...REACH, true] = rows[REACH..REACH, true]
        rows[-REACH..-1, true] = rows[(-REACH - 1)..(-REACH - 1), true]
        rows
      end

      def moved(rows, down, across)
        rows[(REACH + down)...(REACH + down + @window.height), (REACH + across)...(REACH + across + @window.width)].dup.reshape(@window.size)
      end

      def alike(planes, others)
        unlike = planes.zip(others, @variances).map { |plane, other, variance| (plane - other)**2 / variance }.reduce(:+) * (1.0 / (2 * planes.size))
        about = Area::Taps.new(PATCH).call(unlike, @window) * (1.0 / [@strengths.max, 1e-3].max**2)
        Numo::NMath.exp((about - 1.0).clip(0.0, 30.0) * (-1.0 / SOFT))
      end

      def add(sums, weight, squares, others, share)
        sums.zip(others) { |sum, other| sum.inplace + other * share }
        weight.inplace + share
        squares.inplace + share * share
      end
    end
  end
end
