# frozen_string_literal: true

module Mordant
  module Matte
    # Colours near samples: in full up to a distance from the nearest one, then falling over a softness.
    # Distances are those of log codes, Euclidean.
    class Samples < Contributor
      include Seen

      named :samples, "Samples"

      rows :samples, label: "samples", columns: %i[red green blue], range: -4.0..4.0, most: 24, about: "Log codes of the working space that it is near to; without any it takes nothing."
      parameter :distance, label: "distance", unit: :code, range: 0.0..2.0, neutral: 0.03, about: "How far from a sample it takes in full."
      parameter :soft, label: "soft", unit: :code, range: 0.0..2.0, neutral: 0.03, about: "How far it falls beyond that."

      def places = samples.map { |sample| Axes.new(sample.map { |one| Numo::SFloat[one] }, nil).then { |axes| [axes.x[0].to_f, axes.y[0].to_f] } }

      ROOM = 0.01 # around what is picked

      # @see Contributor#after_pick
      def picked(axes, act)
        middle = axes.planes.map { |plane| plane.mean.to_f }
        spread = Ends.of(Numo::SFloat::Math.sqrt(axes.planes.zip(middle).map { |plane, at| (plane - at)**2 }.reduce(:+)), ROOM).high
        case act
        when "fresh" then {samples: [middle], distance: spread}
        when "more" then {samples: [*samples, middle].last(self.class.parameters[:samples].most), distance: [distance, spread].max}
        else fewer(middle, spread)
        end
      end

      # Samples that lie among what is picked go; then all take in less.
      def fewer(middle, spread)
        apart = ->(sample) { Math.sqrt(sample.zip(middle).sum { |a, b| (a - b)**2 }) }
        left = samples.reject { |sample| apart[sample] < [spread, distance / 2].max }
        left = samples if left.empty?
        nearest = left.map(&apart).min
        room = [(nearest || 0.0) - spread, 0.0].max
        share = (nearest && distance + soft > room) ? room / [distance + soft, 1e-6].max : 1.0
        {samples: left, distance: distance * share, soft: soft * share}
      end
      private :fewer

      def weights_of(axes)
        planes = axes.planes
        return planes.first * 0.0 if samples.empty?

        nearest = samples.map { |sample| planes.zip(sample).map { |plane, at| (plane - at).then { |off| off * off } }.reduce(:+) }.reduce { |a, b| a.clip(nil, b) }
        Matte.fall(Pointwise.root(nearest) - distance, soft)
      end
    end
  end
end
