# frozen_string_literal: true

module Mordant
  module Calibration
    # What a screen ought to show for its codes.
    #
    # Source: ITU-R BT.1886, Annex 1, of the target that considers black:
    #   L = a max(V + b, 0)^2.4, a = (Lw^(1/2.4) - Lb^(1/2.4))^2.4, b = Lb^(1/2.4) / (Lw^(1/2.4) - Lb^(1/2.4))
    # of each channel; the others are plain curves of the white's light.
    class Target
      # encoding: whose codes a picture for such a screen has.
      Kind = Struct.new(:id, :label, :encoding, :primaries, :curve, :considers_black, keyword_init: true) do
        # @return [String] see Grade::Screen
        def canvas = Grade::Screen::CANVASES.key(encoding)

        def to_h = {id:, label:, canvas:}
      end
      P, C = Colour::Primaries, Colour::Transfer
      KINDS = [
        Kind.new(id: "rec709-bt1886", label: "BT.709 · BT.1886, black considered", encoding: "rec709-bt1886", primaries: P::REC709, curve: C::Power.new(2.4), considers_black: true),
        Kind.new(id: "rec709-g2.4", label: "BT.709 · gamma 2.4", encoding: "rec709-bt1886", primaries: P::REC709, curve: C::Power.new(2.4)),
        Kind.new(id: "rec709-g2.2", label: "BT.709 · gamma 2.2", encoding: "rec709-g2.2", primaries: P::REC709, curve: C::Power.new(2.2)),
        Kind.new(id: "srgb", label: "sRGB", encoding: "srgb", primaries: P::REC709, curve: C::SRGB),
        Kind.new(id: "p3-d65-g2.6", label: "P3-D65 · gamma 2.6", encoding: "p3-d65-g2.6", primaries: P::P3_D65, curve: C::Power.new(2.6))
      ].map(&:freeze).freeze
      GAMMA = 2.4

      # @return [Kind]
      # @raise [ParameterError]
      def self.kind(id) = KINDS.find { |one| one.id == id } || Checks.reject("target", KINDS.map(&:id).join(", "), id)

      attr_reader :kind, :primaries, :peak, :black

      # @param kind [Kind]
      # @param white [Array<Float>] xy
      # @param peak [Float] cd/m2 of reference white
      # @param black [Float] cd/m2 of the screen's black
      def initialize(kind, white:, peak:, black:)
        @kind, @peak, @black = kind, peak, black.clamp(0.0, peak / 2)
        @primaries = Colour::Primaries.new(**kind.primaries.to_h, white:)
        @matrix = @primaries.to_xyz
        freeze
      end

      # @param codes [Array<Float>]
      # @return [Array<Float>] XYZ
      def light(codes) = lights(Numo::DFloat[*codes.map { |code| [code] }]).to_a.flatten

      # @param codes [Numo::DFloat] [3, n]
      # @return [Numo::DFloat] [3, n] XYZ
      def lights(codes) = Numo::DFloat[*@matrix].dot(channels(codes.clip(0.0, nil)))

      # @return [Array<Float>] XYZ of reference white
      def white_light = Colour::Adaptation.xyz(primaries.white).map { |part| part * peak }

      private

      def channels(codes)
        return kind.curve.decode(codes) * peak unless kind.considers_black

        high, low = peak**(1 / GAMMA), black**(1 / GAMMA)
        (codes + low / (high - low))**GAMMA * (high - low)**GAMMA
      end
    end
  end
end
