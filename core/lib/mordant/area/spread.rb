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
        @sums = {}
        freeze
      end

      # @param sizes [Array<Float>] shares of the picture's height
      # @return [Integer] pixels
      def self.margin(sizes, height) = sizes.map { |size| gaussian(size * height).margin }.max

      # Tap by tap where that is quicker than boxes over all pixels.
      def self.gaussian(sigma) = (sigma < 2 * NARROWEST) ? Taps.gaussian(sigma) : Gaussian.new(sigma, narrowest: NARROWEST)

      # before: the channel, Numo::SFloat [n]; light: #call gives what of it is spread, the channel itself or a new plane; share: Float of
      # K * in - in; into: [n] where what becomes of it is put, elsewhere, lying together.
      Channel = Struct.new(:before, :light, :share, :into)

      # What shares of K * in - in make of channels of a picture.
      #
      # @param channels [Array<Channel>] of the window
      # @param window [Grade::Window]
      # @raise [ShapeError] of planes of another size
      def add(channels, window)
        Pointwise::Together.each(channels, pixels: window.size) do |channel|
          light = channel.light.call
          wide = @gaussians.map { |gaussian, _| gaussian.call(light, window) }
          sum(channel.share).call(*wide, light, channel.before, into: [channel.into])
          [*wide, light].each { |plane| plane.free unless plane.equal?(channel.before) }
        end
      end

      private

      # From what each Gaussian makes of a plane, that plane, and what was before, to what becomes of that.
      def sum(share)
        @sums[share] ||= Pointwise::Sweep.new(@gaussians.size + 2) do |*wide, own, before|
          [(wide.zip(@gaussians).map { |one, (_, part)| one * part }.reduce { |sum, one| one + sum } - own) * share + before]
        end
      end
    end
  end
end
