# frozen_string_literal: true

module Mordant
  module Noise
    # A frame made of itself and of those before and after, as far as they show the same.
    #
    #   out = (f + sum(w_k f_k)) / (1 + sum(w_k))
    #
    # with f_k another frame, moved so that its blocks lie where they are here, and w_k by how like it is about a pixel:
    #
    #   w_k = 1 / (1 + 2 max(D - 1, 0))^2     D: mean over planes and a neighbourhood of (f - f_k)^2 / (2 s^2)
    #
    # which is Wiener's share, squared, of what D says is not noise. A frame that differs by less than FEW of that everywhere is the same one
    # again, and tells nothing new; one that differs everywhere is of another shot.
    class Temporal
      FEW = 0.08
      MANY = 8.0
      ABOUT = [1.0, 0.7, 0.3].freeze # taps of the neighbourhood
      SAMPLE = 37 # every such pixel is looked at for the middle of differences

      # @param window [Grade::Window]
      # @param variances [Array<Numo::SFloat>] [n] of the noise of each plane
      # @param strengths [Array<Float>] of each plane
      def initialize(window, variances, strengths:, effort:, reach:)
        @window, @variances, @strengths = window, variances, strengths
        @motion = Motion.new(window, effort:, reach:)
      end

      # @param planes [Array<Numo::SFloat>]
      # @param others [Enumerable<Array<Numo::SFloat>>] planes of other frames, which are used up
      # @return [Mixed]
      def call(planes, others)
        return Mixed.new(planes:, left: nil) if @strengths.all?(&:zero?)

        sums, weight, squares, alike = planes.map(&:dup), Numo::SFloat.ones(@window.size), Numo::SFloat.ones(@window.size), []
        others.each do |other|
          moved = other
          share = weigh(planes, other) { |found, common| (moved = found) && alike << common }
          add(sums, weight, squares, moved, share) if share
          [*other, *moved].uniq(&:object_id).each(&:free)
        end
        return Mixed.new(planes:, left: nil) if alike.empty?

        common = [1.0 - alike.sum / alike.size, 0.0].max
        made = Mixed.of(planes, sums.map(&:out_of_place!), weight.out_of_place!, squares.out_of_place!, @strengths)
        made.left.map! { |left| left * (1 - common) + common }
        made
      end

      private

      def add(sums, weight, squares, other, share)
        sums.zip(other) { |sum, plane| sum.inplace + plane * share }
        weight.inplace + share
        squares.inplace + share * share
      end

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
          other = other.map { |plane| plane[places].dup }
          unlike = difference(planes, other)
        end
        yield other, usual
        about = Area::Taps.new(ABOUT).call(unlike, @window)
        wrong = (((about.inplace * (2.0 / (usual * [@strengths.max, 1.0].max**2))) - 2.0).out_of_place!.clip(0.0, nil).inplace + 1.0).out_of_place!
        1.0 / (wrong * wrong)
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
