# frozen_string_literal: true

module Mordant
  module Rendition
    # What is corrected in one rendition of a shot, after the mapping. All of it acts on intensity and colour of ICtCp; v is intensity
    # in shares of the way from the target's black to its peak, in PQ codes.
    class ForTarget < Steps::Step
      TONES = %i[blacks middle lights].freeze
      LIFT = 0.025 # blacks above it grey the bars of a picture that has some

      serves :renditions
      named :rendition, "One target"
      domain :log
      parameter :tone, label: "tone", channels: TONES, unit: :share, range: -0.15..0.15, neutral: 0.0,
        about: "blacks (1 - v)^3, middle 3 v (1 - v), lights v^3: added to v; together they rise everywhere."
      parameter :contrast, label: "contrast", unit: :ratio, range: 0.5..2.0, neutral: 1.0,
        about: "Slope at the shot's mean level; the target's black and peak stand still."
      parameter :colour, label: "colour amount", unit: :ratio, range: 0.0..2.0, neutral: 1.0, about: "Multiplies both colour differences."
      parameter :ceiling, label: "highlight ceiling", unit: :share, range: 0.5..1.0, neutral: 1.0,
        about: "Where v ends: highlights roll off to it as they do to the target's peak."
      parameter :kept, label: "highlight colour", unit: :share, range: -1.0..1.0, neutral: 0.0,
        about: "More or less colour where v is above a half, all of it at the peak."
      parameter :detail, label: "highlight detail", unit: :share, range: 0.0..1.0, neutral: 0.0,
        about: "Gives bright areas the fine detail back that the mapping took from them; all of it at 100 %."
      parameter :hue, label: "hue", channels: Sectors::NAMES, unit: :degrees, range: -30.0..30.0, neutral: 0.0,
        about: "Turns colours of a sector, fading out to its neighbours."
      parameter :amount, label: "colour", channels: Sectors::NAMES, unit: :share, range: -1.0..1.0, neutral: 0.0,
        about: "More or less colour in a sector, fading out to its neighbours."

      # @param shares [Numo::DFloat] v
      # @param middle [Float] v of the shot's mean level
      # @return [Numo::DFloat]
      def toned(shares, middle)
        held(contrasted(ranged(shares), middle))
      end

      def tone_neutral? = tone.all?(&:zero?) && contrast == 1.0 && ceiling == 1.0

      # @return [Boolean] colours go further from grey than they came
      def louder? = colour > 1.0 || kept.positive? || amount.any?(&:positive?) || hue.any? { |turn| !turn.zero? }

      # @param shares [Numo::NArray] v
      # @return [Numo::NArray] 0..1, of bright areas
      def self.bright(shares) = Colour::Piecewise.joined(shares * 2.0 - 1.0)

      def operations(_space) = []

      private

      def ranged(v)
        return v if tone.all?(&:zero?)

        blacks, middle, lights = tone
        rest = 1.0 - v
        (v + rest**3 * blacks + v * rest * (3.0 * middle) + v**3 * lights).clip(0.0, 1.0)
      end

      # Powers on either side of the middle, which meet with one slope.
      def contrasted(v, middle)
        return v if contrast == 1.0

        low = Colour::Piecewise.power(v / middle, contrast) * middle
        high = 1.0 - Colour::Piecewise.power((1.0 - v) / (1.0 - middle), contrast) * (1.0 - middle)
        Colour::Piecewise.select(v < middle, low, high)
      end

      def held(v) = (ceiling == 1.0) ? v : ToneCurve.rolled(v, ceiling)
    end
  end
end
