# frozen_string_literal: true

module Mordant
  module Area
    # Light that is scattered: a part of it is taken away where it is and given back around, so that none is lost or won.
    #
    #   out = in + amount (K * in - in),   K = sum(share_i G(size_i)),  sum(share_i) = 1
    #
    # with Gaussians G. Beyond an edge of the picture it goes on as it ends, as everywhere.
    class Spread
      # @param sizes [Hash{Float => Float}] standard deviation as a share of the picture's height => share; shares sum to 1
      # @param height [Integer] of the whole picture
      def initialize(sizes, height)
        @gaussians = sizes.map { |size, share| [Gaussian.new(size * height), share] }
        freeze
      end

      # @param sizes [Array<Float>] shares of the picture's height
      # @return [Integer] pixels
      def self.margin(sizes, height) = sizes.map { |size| Gaussian.new(size * height).margin }.max

      # @param plane [Numo::SFloat] [n] of the window; never written to
      # @param window [Grade::Window]
      # @return [Numo::SFloat] K * plane - plane
      def call(plane, window) = @gaussians.map { |gaussian, share| gaussian.call(plane, window) * share }.reduce(:+) - plane
    end
  end
end
