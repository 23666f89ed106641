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

      # Sums are of doubles.
      def process(_space)
        proc do |own, others|
          sum, count = Numo::DFloat.cast(own), 1
          others.each do |other|
            (sum.inplace + Numo::DFloat.cast(other)).out_of_place!
            count += 1
          end
          Numo::SFloat.cast(sum / count)
        end
      end
    end
  end
end
