# frozen_string_literal: true

module Mordant
  module Steps
    class Curves
      # The curves over hue, saturation and luminance; see Curves for the equations.
      # Hues turn about the grey axis by Rodrigues' formula.
      class HueCurves
        THIRD = 1.0 / 3
        SINE = 1.0 / Math.sqrt(3.0)

        # @param tables [Hash{Symbol => #call, nil}]
        # @param space [Colour::WorkingSpace]
        def initialize(tables, space)
          @tables, @space = tables, space
        end

        # @param planes [Array<Numo::NArray>] log codes
        # @return [Array<Numo::NArray>]
        def call(planes)
          type = planes.first.class
          luma = planes.zip(@space.luminance_weights).map { |plane, weight| plane * weight }.reduce(:+)
          strength = planes.reduce { |a, b| a.clip(b, nil) } - planes.reduce { |a, b| a.clip(nil, b) }
          hue = hue(planes)
          off = turned(planes.map { |plane| plane - luma }, read(:hue_hue, hue, type))
          scale = scale(hue, strength, luma, type)
          lift = read(:hue_luminance, hue, type)
          luma += lift * (strength * (1 / FAINT)).clip(0.0, 1.0) * (@space.white - @space.black) if lift
          off.map { |plane| scale ? plane * scale + luma : plane + luma }
        end

        private

        def read(name, place, type)
          table = @tables[name]
          table && type.cast(table.call(Numo::SFloat.cast(place)))
        end

        # 0 at red, a third at green, two thirds at blue; 0 of greys.
        def hue(planes)
          red, green, blue = planes
          angle = Numo::NMath.atan2((green - blue) * Math.sqrt(3.0), red * 2.0 - green - blue) * (0.5 / Math::PI)
          angle - angle.floor
        end

        # What the three curves of saturation make together; nil where there is none.
        def scale(hue, strength, luma, type)
          tone = (luma - @space.black) * (1 / (@space.white - @space.black))
          {hue_saturation: hue, saturation_saturation: strength, luminance_saturation: tone}
            .filter_map { |name, place| read(name, place, type)&.then { |amount| (amount + 1.0).clip(0.0, nil) } }.reduce(:*)
        end

        def turned(off, turn)
          return off unless turn

          angle = turn * (2 * Math::PI)
          cosine, sine = Numo::NMath.cos(angle), Numo::NMath.sin(angle) * SINE
          mean = off.reduce(:+) * THIRD
          Array.new(3) { |i| mean + (off[i] - mean) * cosine + (off[i - 1] - off[i - 2]) * sine }
        end
      end
    end
  end
end
