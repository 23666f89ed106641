# frozen_string_literal: true

module Mordant
  module Matte
    # From 1 at one line to 0 at another; both stand at right angles to the way between two points.
    class Gradient < Contributor
      named :gradient, "Gradient"

      parameter :full, label: "full at", unit: :share, range: -8.0..8.0, neutral: 0.0, channels: %i[across down], about: "From the middle of the picture, as shares of its height; here and before it acts in full."
      parameter :none, label: "none at", unit: :share, range: -8.0..8.0, neutral: 0.25, channels: %i[across down], about: "Here and beyond it does not act."

      def self.sees_picture? = false

      def self.family = :shape

      # @return [Array(Float, Float)]
      def centre = full.zip(none).map { |a, b| (a + b) / 2 }

      def carried(there) = dup.tap { |one| one.instance_variable_set(:@carried, there) }

      def weights(sight)
        way = none.zip(full).map { |a, b| a - b }
        long = [way.sum { |one| one * one }, (1.0 / sight.moment.height)**2].max
        Matte.placed(sight.moment, @carried) { |across, down| Matte.smooth(((across - full[0]) * way[0] + (down - full[1]) * way[1]) * (-1.0 / long) + 1.0) }
      end
    end
  end
end
