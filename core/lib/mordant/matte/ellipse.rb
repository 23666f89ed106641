# frozen_string_literal: true

module Mordant
  module Matte
    # An ellipse: 1 within, 0 outside, half on its line. Its edge is never sharper than a pixel.
    #
    # The distance to the line is that of first order, f / |grad f| of f = r - 1 with r the radius
    # in units of the ellipse (Taubin 1994, "Distance approximations for rasterizing implicit curves").
    class Ellipse < Contributor
      named :ellipse, "Ellipse"

      parameter :centre, label: "centre", unit: :share, range: -4.0..4.0, neutral: 0.0, channels: %i[across down],
        about: "From the middle of the picture, as shares of its height; down is positive."
      parameter :radii, label: "radii", unit: :share, range: 0.001..8.0, neutral: 1.0 / 3, channels: %i[across down],
        about: "Half its width and half its height before it is turned, as shares of the picture's height."
      parameter :turn, label: "turn", unit: :degrees, range: -180.0..180.0, neutral: 0.0, about: "Turned about its centre, clockwise."
      parameter :softness, label: "feather", unit: :share, range: 0.0..4.0, neutral: 0.1,
        about: "How wide its edge falls, half within and half outside, as a share of the picture's height."

      def self.sees_picture? = false

      NEAREST = 1e-6 # to the centre, where there is no slope, in units of the ellipse

      def self.family = :shape

      def carried(there) = dup.tap { |one| one.instance_variable_set(:@carried, there) }

      def weights(sight) = Matte.placed(sight.moment, @carried) { |across, down| edge(across - centre[0], down - centre[1], sight.moment) }

      private

      def edge(across, down, moment)
        cosine, sine = Math.cos(turn * Math::PI / 180), Math.sin(turn * Math::PI / 180)
        x = across * (cosine / radii[0]) + down * (sine / radii[0])
        y = down * (cosine / radii[1]) - across * (sine / radii[1])
        r = Pointwise.root(x * x + y * y)
        slope = Pointwise.root([x / radii[0], y / radii[1]].map { |one| one * one }.reduce(:+))
        distance = (r - 1.0) * r.clip(NEAREST, nil) / slope.clip(NEAREST**2, nil)
        Matte.smooth(distance / -[softness, 1.0 / moment.height].max + 0.5)
      end
    end
  end
end
