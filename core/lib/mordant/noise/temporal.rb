# frozen_string_literal: true

module Mordant
  module Noise
    # A frame made of itself and of those before and after, as far as they show the same.
    #
    #   out = (f + sum(w_k f_k)) / (1 + sum(w_k))
    #
    # with f_k another frame, moved so that its blocks lie where they are here, and w_k by how like it is about a pixel: 1 where it
    # differs by what noise makes of it, 0 from FAR times that on. A frame that differs by less than FEW of that everywhere is the same one
    # again, and tells nothing new; one that differs everywhere is of another shot.
    class Temporal
      NEAR, FAR = 1.25, 2.75 # of what noise alone makes of a difference
      FEW = 0.08
      MANY = 8.0
      ABOUT = [1.0, 1.0, 1.0].freeze # taps of the neighbourhood
      SAMPLE = 37 # every such pixel is looked at for the middle of differences

      # made: planes; left: [n] share of the variance of noise that is left in them.
      Made = Struct.new(:planes, :left, keyword_init: true)

      # @param window [Grade::Window]
      # @param variances [Array<Numo::SFloat>] [n] of the noise of each plane
      # @param strengths [Array<Float>] of each plane
      def initialize(window, variances, strengths:, effort:, reach:)
        @window, @variances, @strengths = window, variances, strengths
        @motion = Motion.new(window, effort:, reach:)
      end

      # @param planes [Array<Numo::SFloat>]
      # @param others [Array<Array<Numo::SFloat>>] planes of other frames
      # @return [Made]
      def call(planes, others)
        sums, weight, squares, alike = planes.map(&:dup), Numo::SFloat.ones(@window.size), Numo::SFloat.ones(@window.size), []
        others.each do |other|
          share = weigh(planes, other) { |moved, common| (other = moved) && alike << common } or next

          sums.zip(other) { |sum, plane| sum.inplace + plane * share }
          weight.inplace + share
          squares.inplace + share * share
        end
        return Made.new(planes:, left: nil) if alike.empty?

        left = squares.out_of_place! / (weight * weight)
        common = [1.0 - alike.sum / alike.size, 0.0].max
        Made.new(planes: sums.zip(planes, @strengths).map { |sum, plane, strength| mixed(plane, sum.out_of_place! / weight, [strength, 1.0].min) }, left: left * (1 - common) + common)
      end

      private

      def mixed(plane, made, share) = (share == 1.0) ? made : plane + (made - plane) * share

      # @yieldparam other [Array<Numo::SFloat>] as it has been moved
      # @yieldparam common [Float] what differs of it in the middle, over what noise would make of that
      # @return [Numo::SFloat, nil] [n] weights; nil of a frame that is left out
      def weigh(planes, other)
        unlike = difference(planes, other)
        middle = unlike[(0...@window.size).step(SAMPLE).to_a].median
        return if middle < FEW || middle > MANY

        usual = (middle * MEDIAN).clamp(LEAST_USUAL, 1.0)
        places = @motion.call(planes[0], other[0], unlike * (1.0 / usual))
        if places
          other = other.map { |plane| plane[places] }
          unlike = difference(planes, other)
        end
        yield other, usual
        about = Area::Taps.new(ABOUT).call(unlike, @window) * (1.0 / (usual * [@strengths.max, 1.0].max**2))
        Colour::Piecewise.joined((about * -1.0 + FAR) * (1.0 / (FAR - NEAR)))
      end
      MEDIAN = 1.27 # mean of a sum of three squares of noise, over its median
      LEAST_USUAL = 0.25

      # Mean square over planes, over what noise makes of it.
      def difference(planes, other)
        planes.zip(other, @variances).map { |plane, one, variance| (plane - one)**2 / variance }.reduce(:+) * (1.0 / (2 * planes.size))
      end
    end
  end
end
