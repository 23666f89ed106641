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

      # What a share of K * in - in makes of a channel of a picture.
      #
      # @param before [Numo::SFloat] [n] the channel
      # @param plane [Numo::SFloat] [n] of the window that is spread; never written to
      # @param window [Grade::Window]
      # @param into [Numo::SFloat] [n] where it is put, elsewhere, lying together
      def add(before, plane, window, share, into)
        spread = @gaussians.map { |gaussian, _| gaussian.call(plane, window) }
        Pointwise::Sweep.new(spread.size + 2) do |*wide, own, light|
          [(wide.zip(@gaussians).map { |one, (_, part)| one * part }.reduce { |sum, one| one + sum } - own) * share + light]
        end.call(*spread, plane, before, into: [into])
        spread.each(&:free)
      end
    end
  end
end
