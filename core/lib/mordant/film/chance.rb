# frozen_string_literal: true

module Mordant
  module Film
    # Numbers that look like chance and are the same on every machine: each belongs to a seed and to what it is for.
    class Chance
      WIDE = 2.0 # frames, standard deviation of what sways

      # @param parts [Array<Integer, String>] seed
      def initialize(*parts)
        @parts = parts
        freeze
      end

      # @param of [Array<Integer, String>]
      # @return [Float] 0...1
      def even(*of) = Speckle.seed(*@parts, *of) / 4_294_967_296.0

      # @return [Float] of mean 0 and variance 1, never beyond 3: the sum of twelve even ones is nearly normal
      def normal(*of) = (12.times.sum { |at| even(*of, at) } - 6.0).clamp(-3.0, 3.0)

      # @param frame [Integer]
      # @return [Float] of mean 0 and variance 1, near what it is in the frames before and after; never beyond 3
      def swaying(frame, *of)
        reach = (3 * WIDE).ceil
        weights = (-reach..reach).to_h { |away| [away, Math.exp(-away**2 / (2 * WIDE**2))] }
        sum = weights.sum { |away, weight| weight * normal(*of, frame + away) }
        (sum / Math.sqrt(weights.values.sum { |weight| weight**2 })).clamp(-3.0, 3.0)
      end

      # @param mean [Float]
      # @return [Integer] of Poisson's distribution
      def count(mean, *of)
        left, product = Math.exp(-mean), even(*of, 0)
        (1..).find { |at| (product < left) || !(product *= even(*of, at)) } - 1
      end
    end
  end
end
