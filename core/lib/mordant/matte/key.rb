# frozen_string_literal: true

module Mordant
  module Matte
    # Ranges of hue, chroma and lightness; see Axes. Within all three it acts in full, and falls
    # outside each end over a softness of that end's own. Where hues are chosen, colours of less
    # chroma than FAINT count less, and greys not at all.
    class Key < Contributor
      include Seen

      named :key, "Key"

      ROUND = 360.0
      FAINT = 0.004 # of chroma; about a code of 8 bits
      CHROMA = 0.0..2.0
      LIGHTNESS = -1.0..4.0

      parameter :hue, label: "hue", unit: :degrees, range: 0.0..ROUND, neutral: 0.0, about: "Middle of the hues: 0 red, 120 green, 240 blue."
      parameter :hue_width, label: "hues", unit: :degrees, range: 0.0..ROUND, neutral: ROUND, about: "How many degrees of hues; 360 takes all."
      parameter :hue_soft, label: "hue soft", unit: :degrees, range: 0.0..180.0, neutral: 10.0, channels: %i[before after], about: "How far it falls on either side of the hues."
      parameter :chroma_low, label: "chroma from", unit: :code, range: CHROMA, neutral: 0.0, about: "The least chroma; 0 takes greys too."
      parameter :chroma_high, label: "chroma to", unit: :code, range: CHROMA, neutral: CHROMA.end, about: "The greatest chroma."
      parameter :chroma_soft, label: "chroma soft", unit: :code, range: 0.0..1.0, neutral: 0.02, channels: %i[below above], about: "How far it falls below and above."
      parameter :lightness_low, label: "lightness from", unit: :tone, range: LIGHTNESS, neutral: LIGHTNESS.begin, about: "The darkest, on the tone axis."
      parameter :lightness_high, label: "lightness to", unit: :tone, range: LIGHTNESS, neutral: LIGHTNESS.end, about: "The lightest; far above white takes all that is brighter."
      parameter :lightness_soft, label: "lightness soft", unit: :tone, range: 0.0..2.0, neutral: 0.05, channels: %i[below above], about: "How far it falls below and above."

      # @raise [ParameterError] of a range that ends before it begins
      def agree(path)
        {chroma: [chroma_low, chroma_high], lightness: [lightness_low, lightness_high]}.each do |name, (low, high)|
          raise ParameterError.new(path: "#{path}.#{name}_high", expected: "at least #{low}, where the range begins", found: high) if high < low
        end
      end

      def weights_of(axes)
        ranges = [hues(axes), range(axes.method(:chroma), chroma_low, chroma_high, chroma_soft, CHROMA), range(axes.method(:lightness), lightness_low, lightness_high, lightness_soft, LIGHTNESS)].compact
        ranges.reduce(:*) || axes.x * 0.0 + 1.0
      end

      ROOM = {hue: 5.0, chroma: 0.015, lightness: 0.03}.freeze # around what is picked
      GREY = 0.012 # mean chroma of a patch that has no hue

      # @see Contributor#after_pick
      def picked(axes, act)
        found = {hue: arc(axes), chroma: Ends.of(axes.chroma, ROOM[:chroma]), lightness: Ends.of(axes.lightness, ROOM[:lightness])}
        found.delete(:hue) if axes.chroma.mean < GREY
        case act
        when "fresh" then {hue: hue, hue_width: ROUND, chroma_low: 0.0}.merge(stated(found))
        when "more" then stated(found.to_h { |name, ends| [name, own(name, ends).with(ends)] })
        else fewer(found)
        end
      end

      private

      # Hues of a patch about their mean, or about the key's own middle, so that arcs can be compared.
      def arc(axes)
        mean = Math.atan2((axes.y / axes.chroma.clip(1e-6, nil)).mean, (axes.x / axes.chroma.clip(1e-6, nil)).mean) * Axes::DEGREES
        off, side = axes.from_hue(mean)
        Ends.of(off * (Numo::SFloat.cast(side >= 0) * 2.0 - 1.0) + mean, ROOM[:hue])
      end

      # As it is; of hues in the turn that is nearest to others.
      def own(name, other)
        case name
        when :hue
          return other if hue_width >= ROUND

          middle = hue + ROUND * ((other.middle - hue) / ROUND).round
          Ends.new(middle - hue_width / 2, middle + hue_width / 2)
        when :chroma then Ends.new(chroma_low, chroma_high)
        else Ends.new(lightness_low, lightness_high)
        end
      end

      def stated(found)
        found.reduce({}) do |made, (name, ends)|
          case name
          when :hue then made.merge(hue: ends.middle % ROUND, hue_width: ends.size.clamp(0.0, ROUND))
          when :chroma then ends.held(CHROMA).then { |one| made.merge(chroma_low: one.low, chroma_high: one.high) }
          else ends.held(LIGHTNESS).then { |one| made.merge(lightness_low: one.low, lightness_high: one.high) }
          end
        end
      end

      # The cut that costs least.
      def fewer(found)
        softs = {hue: hue_soft, chroma: chroma_soft, lightness: lightness_soft}
        cuts = found.flat_map { |name, ends| bounded(name, own(name, ends), ends).without(ends, softs[name]).map { |lost, left| [lost, name, left] } }
        best = cuts.min_by(&:first)
        best ? stated(best[1] => best[2]) : {}
      end

      # What is without end ends where colours do, so that shares can be compared.
      def bounded(name, own, picked)
        case name
        when :hue then (hue_width >= ROUND) ? Ends.new(picked.middle - 180.0, picked.middle + 180.0) : own
        when :chroma then own.within(0.0, [picked.high, 0.5].max)
        else own.within([picked.low, 0.0].min, [picked.high, 1.2].max)
        end
      end

      # Faint colours have no hue to speak of, and count less.
      def hues(axes)
        return if hue_width >= ROUND

        off, side = axes.from_hue(hue)
        beyond = off - hue_width / 2
        before, after = hue_soft.map { |soft| Matte.fall(beyond, soft) }
        (hue_soft.uniq.one? ? before : Pointwise.choose(side < 0.0, before, after)) * (axes.chroma * (1 / FAINT)).clip(0.0, 1.0)
      end

      # Nil where all of it is taken.
      def range(values, low, high, soft, whole)
        ends = []
        ends << Matte.fall(values.call * -1.0 + low, soft[0]) if low > whole.begin
        ends << Matte.fall(values.call - high, soft[1]) if high < whole.end
        ends.reduce(:*)
      end
    end
  end
end
