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

      def weights(sight)
        each_tile(sight) do |planes|
          next planes.first * 0.0 if samples.empty?

          nearest = samples.map { |sample| planes.zip(sample).map { |plane, at| (plane - at).then { |off| off * off } }.reduce(:+) }.reduce { |a, b| a.clip(nil, b) }
          Matte.fall(Numo::SFloat::Math.sqrt(nearest) - distance, soft)
        end
      end
    end
  end
end
