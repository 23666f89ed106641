# frozen_string_literal: true

module Mordant
  module Grade
    # A first Balance found from a picture alone: white by exposure, black by contrast
    # about its pivot, a cast by temperature and tint. What comes are ordinary numbers of
    # a Balance.
    #
    # White is the luminance that all but the brightest 0.5 % stay below; where a lamp or
    # the sun is in the picture, which stands off by LAMP stops or more from the
    # brightest 2 %, those. Exposure brings it to WHITE. Black is what 0.5 % are darker
    # than; contrast takes it down towards BLACK, and never raises it.
    #
    # The cast is that of the Minkowski mean of each channel ("shades of grey",
    # Finlayson and Trezzi 2004, Color Imaging Conference 12) with light above HELD whites
    # held to it, and of that the share exp(-d^2 / 2 w^2) with d its size in stops: a strong colour of
    # the highlights is more likely a lamp's or a wall's than the camera's mistake.
    class AutoBalance
      # Stops about mid grey: half a stop above a perfect diffuser (2.5), and the darkest
      # things of a scene.
      WHITE = 3.0
      BLACK = -4.5
      LAMP = 2.0 # stops
      HELD = 2.8 # 1.5 stops
      ENDS = 0.005 # share of pixels
      BRIGHT = 0.02
      MOST_EXPOSURE = 3.0 # stops
      MOST_CONTRAST = 1.3
      NORM = 10
      WIDTH = 0.3 # stops
      DARKEST = 2.0**-12 # light

      # @return [Float] see Steps::Balance
      attr_reader :exposure, :contrast, :temperature, :tint

      # @param codes [Media::Codes] a picture, as decoded; a reduced one is enough
      # @param before [Plan] of the steps before the Balance
      # @param pivot [Float] of its contrast, stops from mid grey; it stays
      # @raise [ParameterError] of a picture without light
      def initialize(codes, before:, pivot: 0.0)
        space = before.space
        light = space.transfer.decode(Numo::DFloat.cast(before.run(codes).rgb))
        luminance = (light * Numo::DFloat[*space.luminance_weights].reshape(3, 1)).sum(0).sort
        white = white_of(luminance)
        @exposure = (WHITE - stops(white)).clamp(-MOST_EXPOSURE, MOST_EXPOSURE).round(2)
        black = stops(at(luminance, ENDS)) + exposure
        @contrast = ((black < pivot) ? (BLACK - pivot) / (black - pivot) : 1.0).clamp(1.0, MOST_CONTRAST).round(2)
        @temperature, @tint = cast(light, white)
        freeze
      end

      # @return [Hash] parameters of a Balance; those it does not solve are left out
      def to_h = {"exposure" => exposure, "contrast" => contrast, "temperature" => temperature, "tint" => tint}

      private

      def white_of(luminance)
        ends, bright = at(luminance, 1 - ENDS), at(luminance, 1 - BRIGHT)
        raise ParameterError.new(path: "picture", expected: "a picture with light in it", found: ends.round(6)) if ends < DARKEST

        (stops(ends) - stops(bright) >= LAMP) ? bright : ends
      end

      def at(sorted, share) = sorted[(share * (sorted.size - 1)).round]

      def stops(light) = Math.log2([light, DARKEST].max / Colour::WorkingSpace::MID_GREY)

      # @return [Array<Float>] points of temperature and tint that take it away
      def cast(light, white)
        red, green, blue = Array.new(3) { |channel| Math.log2([mean(light[channel, true] * (1 / white)), DARKEST].max) }
        warm, fresh = red - blue, green - (red + blue) / 2
        kept = Math.exp(-(warm**2 + 4 * fresh**2) / (2 * WIDTH**2))
        [warm, fresh].map { |off| (-off * kept / Steps::Balance::STOPS_A_POINT).round(1) }
      end

      def mean(shares) = (shares.clip(0.0, HELD)**NORM).mean**(1.0 / NORM)
    end
  end
end
