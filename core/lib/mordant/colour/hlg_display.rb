# frozen_string_literal: true

module Mordant
  module Colour
    # The opto-optical part of an HLG display and its inverse, on BT.2020 light.
    #
    # Source: ITU-R BT.2100-2, table 5, reference OOTF, F_D = peak * Y_S^(g-1) * E,
    # black 0. Scene luminance is held at FLOOR of the peak and above where it is raised.
    class HlgDisplay
      GAMMA = 1.2 # for 1000 cd/m2
      FLOOR = 1e-4
      LUMINANCE = Primaries::REC2020.to_xyz[1].freeze

      # @param peak [Float] display peak, 1.0 at 100 cd/m2
      # @return [Encoding] registered
      def self.register(id, label:, peak:)
        curve = ->(direction) { Pointwise::Curve.new(Transfer::HLG.method(direction)) }
        Encoding.register(Encoding.new(
          id:, label:, source: "ITU-R BT.2100-2", kind: Encoding::DISPLAY, primaries: Primaries::REC2020, transfer: Transfer::HLG,
          decoding: [curve[:decode], new(peak, :to_display), Pointwise::Matrix.new(Primaries::REC2020.to_xyz)],
          encoding: [Pointwise::Matrix.new(Primaries::REC2020.from_xyz), new(peak, :to_scene), curve[:encode]]
        ))
      end

      # @param peak [Float] display peak, 1.0 at 100 cd/m2
      # @param direction [Symbol] :to_display or :to_scene
      def initialize(peak, direction)
        @peak, @direction = peak, direction
      end

      def merge(_following) = nil

      def tabulate = self

      # @param planes [Array<Numo::NArray>] overwritten
      def call(planes)
        display = @direction == :to_display
        planes.each { |plane| (plane.inplace * (1.0 / @peak)).out_of_place! } unless display
        luminance = planes.zip(LUMINANCE).map { |plane, weight| plane * weight }.reduce(:+)
        scale = raise_luminance(luminance, display)
        planes.map { |plane| plane * scale }
      end

      private

      # Y_D is Y_S^g, so that a floor of scene light is one of displayed light too.
      def raise_luminance(luminance, display)
        exponent, floor = display ? [GAMMA - 1, FLOOR] : [(1 - GAMMA) / GAMMA, FLOOR**GAMMA]
        scale = Numo::NMath.exp(Numo::NMath.log(luminance.clip(floor, nil)) * exponent)
        display ? scale * @peak : scale
      end
    end
  end
end
