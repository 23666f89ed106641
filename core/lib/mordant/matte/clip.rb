# frozen_string_literal: true

module Mordant
  module Matte
    # A film or a still that was taken in as a matte: black where nothing is acted on, white where all is.
    class Clip < Contributor
      include Placed
      include Elsewhere

      named :clip, "Matte clip"

      CHANNELS = %w[luma red green blue].freeze

      text :clip, label: "clip", from: :reference, neutral: "", about: "Id of the clip."
      text :channel, label: "channel", from: CHANNELS, neutral: "luma", about: "Which channel holds it."
      parameter :offset, label: "offset", unit: :frames, range: -1_000_000.0..1_000_000.0, neutral: 0.0, about: "Later frames of it, or earlier below 0."

      def chosen? = !clip.empty?

      def resolved(resolver) = chosen? ? with_source(resolver.clip(self)) : self

      private

      def missing = "matte clip #{clip}"
    end
  end
end
