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
          places = Places.new(planes, @space)
          luma, hue = places.luma, places.hue
          off = turned(planes.map { |plane| plane - luma }, read(:hue_hue, hue, type))
          scale = scale(places, hue, type)
          lift = read(:hue_luminance, hue, type)
          luma += lift * places.presence * (@space.white - @space.black) if lift
          off.map { |plane| scale ? plane * scale + luma : plane + luma }
        end

        private

        def read(name, place, type)
          table = @tables[name]
          table && type.cast(table.call(Numo::SFloat.cast(place)))
        end

        # What the three curves of saturation make together; nil where there is none.
        def scale(places, hue, type)
          {hue_saturation: -> { hue }, saturation_saturation: -> { places.saturation }, luminance_saturation: -> { places.tone(places.luma) }}
            .filter_map { |name, place| @tables[name] && read(name, place.call, type).then { |amount| (amount + 1.0).clip(0.0, nil) } }.reduce(:*)
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
