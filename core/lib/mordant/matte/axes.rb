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

      # @param planes [Array<Numo::SFloat>] red, green and blue
      # @param space [Colour::WorkingSpace]
      def initialize(planes, space)
        @planes, @space = planes, space
      end

      # @return [Array<Numo::SFloat>] red, green and blue
      attr_reader :planes

      # @return [Numo::SFloat] in codes, towards red
      def x = @x ||= (@planes[1] + @planes[2]).then { |sum| ((sum.inplace * -0.5).inplace + @planes[0]).out_of_place! }

      # @return [Numo::SFloat] in codes, from blue towards green
      def y = @y ||= ((@planes[1] - @planes[2]).inplace * HALF_ROOT).out_of_place!

      # @return [Numo::SFloat] in codes, 0 of greys
      def chroma = @chroma ||= Numo::SFloat::Math.sqrt(((x * x).inplace + y * y).out_of_place!)

      # How far hues are from one, either way: tan(d / 2) = sin d / (1 + cos d), from the nearer of it and its
      # opposite.
      #
      # @param hue [Float] degrees
      # @return [Array<Numo::SFloat>] degrees, 0..180, of greys whatever; and what is below 0 where they come before it
      def from_hue(hue)
        cosine, sine = Math.cos(hue / DEGREES), Math.sin(hue / DEGREES)
        along, aside = [[x, cosine, y, sine], [y, cosine, x, -sine]].map { |a, by, b, too| (a * by).then { |sum| (b * too).then { |more| (sum.inplace + more).out_of_place!.tap { more.free } } } }
        beyond = Numo::SFloat.cast(along < 0.0)
        near = along.abs
        near.inplace + chroma
        long = near.out_of_place!.clip(LEAST, nil)
        half = aside.abs
        half.inplace / long
        off = Numo::SFloat::Math.atan(half.out_of_place!)
        off.inplace * (2 * DEGREES)
        turned = off.out_of_place! * -2.0
        turned.inplace + 180.0
        turned.inplace * beyond
        off.inplace + turned.out_of_place!
        [along, beyond, near, long, half, turned].each(&:free)
        [off.out_of_place!, aside]
      end
      LEAST = 1e-12
      private_constant :LEAST

      # @return [Numo::SFloat] 0 no light, 1 white
      def lightness = @lightness ||= begin
        luma = @planes.zip(@space.luminance_weights).map { |plane, weight| plane * weight }.reduce(:+)
        (luma - @space.black) / (@space.white - @space.black)
      end
    end
  end
end
