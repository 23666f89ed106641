# frozen_string_literal: true

module Mordant
  module Rendition
    # What becomes of intensity, and by how much colour goes with it: two functions of I alone.
    #
    #   u = (I - B) / (W - B)                           B, W: the shot's black and highlight
    #   I1 = B + (W - B) (u + brightness u (1 - u))
    #   I2 = EETF(I1), colour times min(I1 / I2, I2 / I1); what is darker than B stays so, unless the target's black is brighter
    #   v = (I2 - b) / (w - b)                          b, w: the target's
    #   I' = b + (w - b) ForTarget#toned(v), colour times amounts
    #
    # Source: ITU-R BT.2390-10, 5.4 for the EETF and what it does to colour.
    class Tones
      SMALL = 1e-6

      # @param levels [Levels] what the picture has
      # @param aim [Aim]
      # @param all [ForAll]
      # @param one [ForTarget]
      def initialize(levels:, aim:, all:, one:)
        @all, @one = all, one
        greatest = [levels.greatest, levels.least + SMALL].max
        @curve = ToneCurve.new(black: levels.least, white: greatest, least: aim.black, greatest: aim.peak)
        @from, @to = [[levels.least, greatest], [aim.black, aim.peak]].map { |ends| codes(ends) }
        @middle = share(@to, Numo::DFloat[codes([levels.mean]).first].then { |code| @curve.call(code) })[0].clamp(0.1, 0.9)
        freeze
      end

      # @return [Boolean] nothing moves
      def neutral? = @curve.neutral? && @all.brightness.zero? && @one.tone_neutral?

      # @return [Boolean] colour stays what it is, but for sectors
      def colour_neutral? = @curve.neutral? && @one.colour == 1.0 && @one.kept.zero?

      # @param intensity [Numo::NArray] I
      # @return [Numo::NArray]
      def intensity(intensity)
        mapped = mapped(brightened(intensity))
        return mapped if @one.tone_neutral?

        shares = share(@to, mapped)
        held = shares.clip(0.0, 1.0)
        mapped + (@one.toned(held, @middle) - held) * (@to[1] - @to[0])
      end

      # @param intensity [Numo::NArray] I as it came
      # @return [Numo::NArray] what Ct and Cp are multiplied by
      def colour(intensity)
        before = brightened(intensity)
        after = mapped(before)
        scale = @curve.neutral? ? before * 0.0 + 1.0 : followed(before, after)
        scale *= @one.colour
        @one.kept.zero? ? scale : scale * (ForTarget.bright(share(@to, after)) * @one.kept + 1.0)
      end

      # @param mapped [Numo::NArray] I of the rendition
      # @return [Numo::NArray] 0..1, of bright areas
      def bright(mapped) = ForTarget.bright(share(@to, mapped))

      private

      def mapped(codes)
        made = @curve.call(codes)
        (made.equal?(codes) || @from[0] < @to[0]) ? made : made + (codes.clip(nil, @from[0]) - @from[0])
      end

      def codes(nits) = Colour::Transfer::PQ.encode(Numo::DFloat[*nits] * ICtCp::NITS).to_a

      def share((low, high), codes) = (codes - low) / (high - low)

      def brightened(codes)
        return codes if @all.brightness.zero?

        held = share(@from, codes).clip(0.0, 1.0)
        codes + (@all.lifted(held) - held) * (@from[1] - @from[0])
      end

      def followed(before, after)
        low, high = [before, after].map { |codes| codes.clip(SMALL, nil) }
        ratio = low / high
        Colour::Piecewise.select(ratio > 1.0, high / low, ratio)
      end
    end
  end
end
