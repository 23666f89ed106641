# frozen_string_literal: true

module Mordant
  module Matte
    # Hue, chroma and lightness that keys count in, of log codes r, g, b of the working space:
    #
    #   x = r - (g + b) / 2,  y = (g - b) * sqrt(3) / 2
    #   chroma = sqrt(x^2 + y^2),  hue = atan2(y, x)      0 red, 120 green, 240 blue
    #   lightness = (w . (r, g, b) - black) / (white - black)   on the tone axis
    #
    # Neutral lies at chroma 0. More or less light moves all three log codes alike, and so changes
    # lightness alone. A pure primary d codes above the other two has chroma d.
    class Axes
      HALF_ROOT = Math.sqrt(3.0) / 2
      DEGREES = 180.0 / Math::PI

      # @param planes [Array<Numo::SFloat, Pointwise::Recorded>] red, green and blue
      # @param space [Colour::WorkingSpace]
      def initialize(planes, space)
        @planes, @space = planes, space
      end

      # @return [Array<Numo::SFloat>] red, green and blue
      attr_reader :planes

      # @return [Numo::SFloat] in codes, towards red
      def x = @x ||= (@planes[1] + @planes[2]) * -0.5 + @planes[0]

      # @return [Numo::SFloat] in codes, from blue towards green
      def y = @y ||= (@planes[1] - @planes[2]) * HALF_ROOT

      # @return [Numo::SFloat] in codes, 0 of greys
      def chroma = @chroma ||= Pointwise.root(x * x + y * y)

      # How far hues are from one, either way: tan(d / 2) = sin d / (1 + cos d), from the nearer of it and its
      # opposite.
      #
      # @param hue [Float] degrees
      # @return [Array<Numo::SFloat>] degrees, 0..180, of greys whatever; and what is below 0 where they come before it
      def from_hue(hue)
        cosine, sine = Math.cos(hue / DEGREES), Math.sin(hue / DEGREES)
        along, aside = x * cosine + y * sine, y * cosine - x * sine
        off = Axes.arctangent(aside.abs / (along.abs + chroma).clip(LEAST, nil)) * (2 * DEGREES)
        [Pointwise.choose(along < 0.0, off * -1.0 + 180.0, off), aside]
      end
      LEAST = 1e-12
      ARCTANGENT = [0.0028662257, -0.0161657367, 0.0429096138, -0.0752896400, 0.1065626393, -0.1420889944, 0.1999355085, -0.3333314528, 1.0].freeze
      private_constant :LEAST, :ARCTANGENT

      # Within 2e-8, besides the rounding of floats. Source: Hastings 1955; Abramowitz and Stegun, 4.4.49.
      #
      # @param tangent [Numo::SFloat] 0..1
      # @return [Numo::SFloat] radians
      def self.arctangent(tangent)
        square = tangent * tangent
        tangent * ARCTANGENT.drop(2).reduce(square * ARCTANGENT[0] + ARCTANGENT[1]) { |sum, one| sum * square + one }
      end

      # @return [Numo::SFloat] 0 no light, 1 white
      def lightness = @lightness ||= begin
        luma = @planes.zip(@space.luminance_weights).map { |plane, weight| plane * weight }.reduce(:+)
        (luma - @space.black) / (@space.white - @space.black)
      end
    end
  end
end
