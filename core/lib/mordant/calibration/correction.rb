# frozen_string_literal: true

module Mordant
  module Calibration
    # Codes for which a screen shows what its target wants: a lattice.
    class Correction
      SIZES = [17, 33].freeze
      HALVINGS = 24

      attr_reader :target, :size

      # @param model [Model]
      # @param target [Target]
      # @param size [Integer] nodes a side
      # @param most [Float] brightest code of the signal
      def initialize(model, target, size: 17, most: 1.0)
        @model, @target, @size, @most = model, target, size, most
      end

      # @param range [String] of the codes it takes and gives, see SignalCodes
      # @return [Lut::Lattice]
      def lattice(range = "full")
        nodes = Lut::Lattice.nodes(size)
        given = SignalCodes.sent(corrected(SignalCodes.meant(nodes, range)), range)
        Lut::Lattice.new(given.clip(0.0, 1.0).transpose.dup, size:)
      end

      # @param codes [Numo::DFloat] [3, n]
      # @return [Numo::DFloat] [3, n]; what lies below black stays as far below
      def corrected(codes) = @model.codes(reached(@target.lights(codes))) + codes.clip(nil, 0.0)

      private

      # Colours the screen cannot show go towards the grey of the same light until it can.
      def reached(lights)
        amounts = @model.amounts(lights)
        out = (~fits(amounts)).where
        return amounts.clip(0.0, nil) if out.empty?

        wanted = amounts[true, out].dup
        greys = @model.amounts(Numo::DFloat[*@target.white_light.map { |part| [part / @target.peak] }] * lights[1, out].dup)
        low, high = Numo::DFloat.zeros(out.size), Numo::DFloat.ones(out.size)
        HALVINGS.times do
          middle = (low + high) / 2
          fit = fits(greys + (wanted - greys) * middle)
          low = Colour::Piecewise.select(fit, middle, low)
          high = Colour::Piecewise.select(fit, high, middle)
        end
        amounts[true, out] = greys + (wanted - greys) * low
        amounts.clip(0.0, nil)
      end

      NEARLY = 2e-4 # of a channel's light, or of a code: as good as none
      def fits(amounts) = (amounts.min(0) >= -NEARLY) & (@model.codes(amounts.clip(0.0, nil)).max(0) <= @most + NEARLY)
    end
  end
end
