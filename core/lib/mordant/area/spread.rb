# frozen_string_literal: true

module Mordant
  module Area
    # Light that is scattered: a part of it is taken away where it is and given back around, so that none is lost or won.
    #
    #   out = in + amount (K * in - in),   K = sum(share_i G(size_i)),  sum(share_i) = 1
    #
    # with Gaussians G. Beyond an edge of the picture it goes on as it ends, as everywhere.
    class Spread
      NARROWEST = 1.6 # blocks of standard deviation: light has no edge here that would show them

      # @param sizes [Hash{Float => Float}] standard deviation as a share of the picture's height => share; shares sum to 1
      # @param height [Integer] of the whole picture
      def initialize(sizes, height)
        @gaussians = sizes.map { |size, share| [Spread.gaussian(size * height), share] }
        freeze
      end

      # @param sizes [Array<Float>] shares of the picture's height
      # @return [Integer] pixels
      def self.margin(sizes, height) = sizes.map { |size| gaussian(size * height).margin }.max

      # Tap by tap where that is quicker than boxes over all pixels.
      def self.gaussian(sigma) = (sigma < 2 * NARROWEST) ? Taps.gaussian(sigma) : Gaussian.new(sigma, narrowest: NARROWEST)

      # @param plane [Numo::SFloat] [n] of the window; never written to
      # @param window [Grade::Window]
      # @return [Numo::SFloat] K * plane - plane
      def call(plane, window)
        sum = @gaussians.reduce(nil) do |made, (gaussian, share)|
          one = gaussian.call(plane, window)
          one.inplace * share
          made&.then { |other| (one.inplace + other).out_of_place!.tap { other.free } } || one.out_of_place!
        end
        (sum.inplace - plane).out_of_place!
      end

      # What a share of that makes of a channel of a picture.
      #
      # @param out [Numo::SFloat] [3, n], written to
      # @param plane [Numo::SFloat] [n] that is spread; used up
      def add(out, channel, plane, window, share)
        added = call(plane, window)
        plane.free
        added.inplace * share
        added.inplace + out[channel, true]
        out[channel, true] = added.out_of_place!
        added.free
      end
    end
  end
end
