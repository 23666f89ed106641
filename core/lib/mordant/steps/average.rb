# frozen_string_literal: true

module Mordant
  module Steps
    # The mean of a frame and those around it, in log codes: for subjects that keep still. At the
    # ends of a clip, of the frames there are.
    class Average < Step
      named :average, "Average"
      domain :log
      reach :time

      parameter :frames, label: "frames", unit: :frames, range: 0.0..12.0, neutral: 0.0, about: "So many before and as many after; rounded to whole ones."

      def neutral? = window.zero?

      def window = frames.round

      # Sums are of doubles, in the order of the frames.
      def process(_space)
        proc do |pictures|
          sum = pictures.reduce(Numo::DFloat.zeros(*pictures.first.shape)) { |held, picture| (held.inplace + Numo::DFloat.cast(picture)).out_of_place! }
          Numo::SFloat.cast(sum / pictures.size)
        end
      end
    end
  end
end
