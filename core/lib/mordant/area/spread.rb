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

      # before: the channel, Numo::SFloat [n]; light: #call gives what of it is spread, the channel itself or a new plane; share: Float of
      # K * in - in; into: [n] where what becomes of it is put, elsewhere, lying together.
      Channel = Struct.new(:before, :light, :share, :into)

      # What shares of K * in - in make of channels of a picture.
      #
      # @param channels [Array<Channel>]
      # @param window [Grade::Window]
      def add(channels, window)
        # one after the other takes less memory
        channels.each_slice((Pointwise::Together.count == 1) ? 1 : [channels.size, 1].max) do |some|
          lights = some.map { |channel| channel.light.call }
          wide = Pointwise::Together.each(lights.product(@gaussians), pixels: window.size) { |light, (gaussian, _)| gaussian.call(light, window) }
          some.zip(lights, wide.each_slice(@gaussians.size)) { |channel, light, spread| put(channel, light, spread) }
          [*wide, *lights.reject { |light| some.any? { |channel| light.equal?(channel.before) } }].each(&:free)
        end
      end

      private

      def put(channel, light, spread)
        Pointwise::Sweep.new(spread.size + 2) do |*wide, own, before|
          [(wide.zip(@gaussians).map { |one, (_, part)| one * part }.reduce { |sum, one| one + sum } - own) * channel.share + before]
        end.call(*spread, light, channel.before, into: [channel.into])
      end
    end
  end
end
