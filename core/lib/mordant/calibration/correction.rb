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

      # @param range [String] of the codes it takes and gives, see Colour::SignalRange
      # @return [Lut::Lattice]
      def lattice(range = "full")
        nodes = Lut::Lattice.nodes(size)
        given = Colour::SignalRange.encode(corrected(Colour::SignalRange.decode(nodes, range)), range)
        Lut::Lattice.new(given.clip(0.0, 1.0).transpose.dup, size:)
      end

      # @param codes [Numo::DFloat] [3, n]
      # @return [Numo::DFloat] [3, n]; what lies below black stays as far below
      def corrected(codes) = @model.codes(reached(wanted(codes))) + codes.clip(nil, 0.0)

      private

      # The screen's black is what it is, and has a tint of its own: what is wanted begins there, and is the target's own
      # where that is much brighter.
      def wanted(codes)
        lights = @target.lights(codes)
        own, black = [@model.black, @target.light([0.0] * 3)].map { |light| Numo::DFloat[*light.map { |part| [part] }] }
        dark = @model.black[1].clamp(1e-9, nil)
        lights + (own - black) * (dark / lights[1, true].clip(dark, nil)).reshape(1, codes.shape[1])
      end

      # A colour that the screen has too few hues for goes towards the grey of the same light until it can be shown; one
      # that is too bright for it gets darker.
      def reached(lights)
        amounts = coloured(@model.amounts(lights), lights[1, true])
        out = (~fits(amounts)).where
        amounts[true, out] = darker(amounts[true, out].dup) unless out.empty?
        amounts
      end

      def coloured(amounts, light)
        greys = @model.amounts(Numo::DFloat[*@target.white_light.map { |part| [part / @target.peak] }] * light.reshape(1, light.size)).clip(0.0, nil)
        share = Colour::Piecewise.select(amounts < 0, greys / (greys - amounts).clip(1e-12, nil), amounts * 0.0 + 1).min(0)
        (greys + (amounts - greys) * share.reshape(1, light.size)).clip(0.0, nil)
      end

      def darker(amounts)
        low, high = Numo::DFloat.zeros(amounts.shape[1]), Numo::DFloat.ones(amounts.shape[1])
        HALVINGS.times do
          middle = (low + high) / 2
          fit = fits(amounts * middle)
          low = Colour::Piecewise.select(fit, middle, low)
          high = Colour::Piecewise.select(fit, high, middle)
        end
        amounts * low
      end

      NEARLY = 2e-4 # of a code: as good as none
      def fits(amounts) = @model.codes(amounts).max(0) <= @most + NEARLY
    end
  end
end
