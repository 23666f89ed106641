# frozen_string_literal: true

module Mordant
  module Noise
    # Takes from each detail of a plane what noise has put there: the share that is left is Wiener's, by the energy of its
    # neighbourhood.
    #
    #   d' = d max(0, 1 - k s^2 / E)     E: mean of d^2 about it, s^2: variance of noise at its size and level
    #
    # Coarse detail is looked at in means of blocks of two pixels, and what is taken of it drawn back.
    #
    # Source: M. K. Mihcak, I. Kozintsev, K. Ramchandran, P. Moulin, Low-complexity image denoising based on statistical modeling of wavelet
    # coefficients, IEEE Signal Process. Lett. 6 (1999).
    class Shrinkage
      NEAR = [1.0, 1.0].freeze # taps of the neighbourhood
      MORE = 1.15 # k: of noise is taken somewhat more than its mean
      FINE = [2, 1, 1].freeze # detail sizes of each plane that are looked at pixel by pixel

      # @param window [Grade::Window]
      # @param level [Numo::SFloat] [n] luma
      # @param left [Numo::SFloat, nil] [n] share of the variance of noise that is left; nil: all
      # @param profile [Profile]
      def initialize(window, level, left, profile)
        @window, @profile = window, profile
        @blocks = Area::Blocks.new(2)
        @whole = [level, left, window]
        @half = halved(level, left)
      end

      # @param planes [Array<Numo::SFloat>]
      # @param strengths [Array<Float>] of each, times the noise that there is
      # @return [Array<Numo::SFloat>]
      def call(planes, strengths)
        planes.each_with_index.map { |plane, index| strengths[index].zero? ? plane : cleaned(plane, index, strengths[index]) }
      end

      # @return [Integer] pixels around one that it depends on
      def self.margin = Details.margin + 4 * Details::SCALES

      private

      def halved(level, left)
        means = ->(plane) { plane && @blocks.means(plane.reshape(@window.height, @window.width), @window) }
        small = means[level]
        [small.reshape(small.size), means[left]&.then { |one| one.reshape(one.size) }, Grade::Window.new(left: @window.left / 2, top: @window.top / 2, width: small.shape[1], height: small.shape[0])]
      end

      def cleaned(plane, index, strength)
        fine = FINE[index]
        parts, rest = Details.of(plane, @window, scales: fine)
        coarse = @blocks.means(rest.reshape(@window.height, @window.width), @window)
        taken = taken(coarse.reshape(coarse.size), index, strength, fine)
        sum = rest - @blocks.drawn(taken.reshape(*coarse.shape), @window)
        parts.each_with_index { |detail, scale| sum.inplace + kept(detail, index, scale, scale, strength, @whole) }
        sum.out_of_place!
      end

      # What noise has put into coarse detail.
      def taken(plane, index, strength, from)
        parts, = Details.of(plane, @half.last, scales: Details::SCALES - from, first: from - 1)
        parts.each_with_index.map { |detail, at| detail - kept(detail, index, from + at, from + at - 1, strength, @half) }.reduce(:+)
      end

      def kept(detail, index, scale, apart, strength, (level, left, window))
        energy = Area::Taps.new(NEAR, apart: [2**apart / 2, 1].max).call(detail * detail, window)
        noise = @profile.table(index, scale).call(level) * (MORE * strength * strength)
        noise.inplace * left if left
        share = (energy - noise.out_of_place!) / (energy.inplace + Profile::LEAST).out_of_place!
        detail * share.clip(0.0, 1.0)
      end
    end
  end
end
