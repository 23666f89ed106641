# frozen_string_literal: true

module Mordant
  module Match
    # Exposure, temperature and tint that make a picture like another, its hero, as
    # numbers of a Balance.
    #
    # Of all steps in the logarithm of light the one is taken under which the picture's
    # points are likeliest in the hero's density, less what speaks against large steps: a
    # normal prior of the widths PRIOR, weighed by DOUBT. The search goes over a grid and then
    # halves its distances about the best.
    class Proposal
      REACH = [3.0, 1.2, 0.4].freeze # stops of lightness, warmth and tint looked at either way
      GRID = Density::AXES.map { |_, width, _| width }.freeze # so that all of it is made of bins
      HALVINGS = 4
      COARSE = 1500 # points looked at over the grid, and about the best
      FINE = 5000
      PRIOR = [1.5, 0.35, 0.15].freeze # stops
      DOUBT = 0.02
      # Mean logarithm of the density that a step must gain, or there is none: what samples of
      # the same picture differ by.
      LEAST_GAIN = 0.005

      # @return [Array<Float>] stops of lightness, warmth and tint to be added
      attr_reader :shift

      # @param hero [Points]
      # @param picture [Points]
      # @param skin [Float] 0..1, see Density
      # @raise [ParameterError]
      def initialize(hero:, picture:, skin: 0.0)
        unless skin.is_a?(Numeric) && skin.between?(0, 1)
          raise ParameterError.new(path: "skin", expected: "a weight in 0..1", found: skin)
        end
        @hero, @picture, @skin = hero, picture, skin.to_f
        @density = Density.new(hero, skin: @skin)
        @shift = worthwhile(refined(over_grid))
        freeze
      end

      # @return [Hash] parameters of a Balance
      def parameters
        exposure, warmth, tint = shift
        {"exposure" => exposure.round(3), "temperature" => points(warmth), "tint" => points(tint)}
      end

      # How much of both pictures is alike, before and after.
      #
      # @return [Array<Float>] 0..1
      def overlaps
        moved = Shifted.new(@picture.coordinates + Numo::DFloat[*shift].reshape(3, 1))
        plain = Density.new(@hero)
        [@picture, moved].map { |points| plain.overlap(Density.new(points)).round(4) }
      end

      Shifted = Struct.new(:coordinates)
      private_constant :Shifted

      private

      def points(stops) = (stops / Steps::Balance::STOPS_A_POINT).round(1)

      def worth(sample, shift) = @density.likelihood(sample, shift) - doubt(shift)

      def doubt(shift) = DOUBT * shift.zip(PRIOR).sum { |step, width| (step / width)**2 } / 2

      def worthwhile(shift)
        sample = @picture.sample(FINE)
        still = [0.0, 0.0, 0.0]
        (worth(sample, shift) - worth(sample, still) > LEAST_GAIN) ? shift : still
      end

      def over_grid
        reach = REACH.zip(GRID).map { |stops, step| (stops / step).floor }
        found = @density.likelihoods(@picture.sample(COARSE), reach).transform_keys { |bins| bins.zip(GRID).map { |count, step| count * step } }
        found.max_by { |shift, likelihood| likelihood - doubt(shift) }.first
      end

      def refined(start)
        sample = @picture.sample(FINE)
        (1..HALVINGS).reduce(start) do |best, halving|
          steps = GRID.map { |step| step / 2.0**halving }
          around = [-1, 0, 1].product([-1, 0, 1], [-1, 0, 1]).map { |way| best.zip(way, steps).map { |at, sign, step| at + sign * step } }
          around.max_by { |shift| worth(sample, shift) }
        end
      end
    end
  end
end
