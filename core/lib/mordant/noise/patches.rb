# frozen_string_literal: true

module Mordant
  module Noise
    # Pixels made of others near them whose surroundings are alike: patches of a first try are compared in all planes, relative to the noise
    # that there is.
    #
    #   out(x) = sum(w(x, y) f(y)) / sum(w(x, y)),   w = exp(-D / SOFT),   D: mean over a patch of (p(x) - p(y))^2 / (2 s^2)
    #
    # with f the picture, p the first try at it and s^2 the variance of the noise.
    #
    # Source: A. Buades, B. Coll, J.-M. Morel, A non-local algorithm for image denoising, CVPR 2005.
    class Patches
      REACH = 3 # pixels
      SOFT = 0.2
      NEAR = 9.0 # pixels of a patch
      ALIKE = 1.3 # what is left is chosen for being alike, and so more than a mean of chance would be

      # @return [Integer] pixels around one that it depends on
      def self.margin = REACH + 2

      # @param window [Grade::Window]
      # @param variances [Array<Numo::SFloat>] [n] of the noise of each plane
      # @param strengths [Array<Float>] of each plane
      def initialize(window, variances, strengths:)
        @window, @strengths = window, strengths
        @layout = Area::Bordered.new(window.width, window.height, 2 * REACH + 2)
        scale = NEAR * SOFT * 2 * variances.size * [strengths.max, 1.0].max**2
        @weights = variances.map { |variance| @layout.laid(1.0 / (variance * scale)) }
      end

      # Once: what it has worked with is large, and given back.
      #
      # @param planes [Array<Numo::SFloat>]
      # @param tries [Array<Numo::SFloat>] with less noise
      # @return [Mixed]
      def call(planes, tries)
        rows, tries = [planes, tries].map { |some| some.map { |plane| @layout.laid(plane) } }
        sums, weight = rows.map(&:dup), Numo::SFloat.ones(rows[0].size)
        squares = weight.dup
        offsets.each do |off|
          share = alike(tries, off)
          add(sums, weight, squares, rows, share, off)
        end
        weight, squares, *sums = [weight, squares, *sums].map { |row| @layout.taken(row).tap { row.free } }
        [*rows, *tries, *@weights].each(&:free)
        made = Mixed.of(planes, sums, weight, squares, @strengths)
        made.left.map! { |left| (left * ALIKE).clip(0.0, 1.0) }
        made
      end

      private

      # One of each pair that lie opposite.
      def offsets
        pairs = (0..REACH).to_a.product((-REACH..REACH).to_a).select { |down, across| down.positive? || across.positive? }
        pairs.map { |down, across| down * @layout.down + across * @layout.across }
      end

      # How alike each pixel's patch is to the one that lies so far on.
      def alike(tries, off)
        sum = nil
        tries.zip(@weights) do |row, weight|
          unlike = row[off..] - row[0...-off]
          unlike = (unlike.inplace * unlike * weight[0...-off]).out_of_place!
          sum = sum ? (sum.inplace + unlike).out_of_place! : unlike
        end
        across, about = Array.new(2) { Numo::SFloat.new(sum.size).allocate }
        @layout.sum(@layout.sum(sum, @layout.across, across), @layout.down, about)
        about.inplace * -1.0
        Numo::NMath.exp(about.out_of_place!)
      end

      # Either one of a pair to the other.
      def add(sums, weight, squares, rows, share, off)
        rows.zip(sums) do |row, sum|
          sum[0...-off].inplace + row[off..] * share
          sum[off..].inplace + row[0...-off] * share
        end
        [[weight, share], [squares, share * share]].each do |sum, more|
          sum[0...-off].inplace + more
          sum[off..].inplace + more
        end
      end
    end
  end
end
