# frozen_string_literal: true

module Mordant
  module Matte
    # What contributors have in common that are moved, turned and scaled as a whole, about a pivot. All
    # of it is in heights of the picture, from its middle, right and down positive.
    module Placed
      def self.included(kind)
        kind.parameter :move, label: "move", unit: :share, range: -8.0..8.0, neutral: 0.0, channels: %i[across down], about: "As shares of the picture's height."
        kind.parameter :turn, label: "turn", unit: :degrees, range: -3600.0..3600.0, neutral: 0.0, about: "About the pivot, clockwise."
        kind.parameter :scale, label: "scale", unit: :ratio, range: 0.01..100.0, neutral: 1.0, channels: %i[across down], about: "About the pivot, before it is turned."
        kind.parameter :pivot, label: "pivot", unit: :share, range: -8.0..8.0, neutral: 0.0, channels: %i[across down], about: "What it is turned and scaled about, from the middle of the picture, before it is moved."
      end

      # @return [Track::Map] from where it was drawn to where it is
      def placing
        cosine, sine = Math.cos(turn * Math::PI / 180), Math.sin(turn * Math::PI / 180)
        a, b, d, e = cosine * scale[0], -sine * scale[1], sine * scale[0], cosine * scale[1]
        x, y = pivot
        Track::Map.new([a, b, x + move[0] - a * x - b * y, d, e, y + move[1] - d * x - e * y, 0.0, 0.0, 1.0]).then { |own| @carried ? @carried * own : own }
      end

      # @param there [Track::Map]
      # @return [Contributor]
      def carried(there) = dup.tap { |one| one.instance_variable_set(:@carried, there) }
    end
  end
end
