# frozen_string_literal: true

module Mordant
  module Colour
    module ACES
      # Colours beyond AP1 brought towards its edge, and back.
      #
      # Source: Academy TB-2021-001, reference gamut compression 1.3
      # (LMT.Academy.ReferenceGamutCompress.ctl), on AP1 light.
      class GamutCompression
        # Cyan, magenta, yellow.
        LIMIT = [1.147, 1.264, 1.312].freeze
        THRESHOLD = [0.815, 0.803, 0.880].freeze
        POWER = 1.2

        SCALES = LIMIT.zip(THRESHOLD).map do |limit, threshold|
          (limit - threshold) / (((1 - threshold) / (limit - threshold))**-POWER - 1)**(1 / POWER)
        end.freeze

        # @param inverse [Boolean]
        def initialize(inverse: false)
          @inverse = inverse
        end

        def merge(_following) = nil

        def tabulate = self

        # @param planes [Array<Numo::NArray>] AP1 light
        # @return [Array<Numo::NArray>]
        def call(planes)
          achromatic = planes.reduce { |high, plane| high.clip(plane, nil) }
          size = achromatic.abs
          planes.each_with_index.map do |plane, channel|
            distance = (achromatic - plane) / size.clip(1e-30, nil)
            moved = distance + (bend(distance, channel) - distance) * (size > 0.0)
            achromatic - moved * size
          end
        end

        private

        # Distances at or below the threshold stay where they are.
        def bend(distance, channel)
          threshold, scale = THRESHOLD[channel], SCALES[channel]
          beyond = (distance.clip(threshold, nil) - threshold) / scale
          far = @inverse ? expand(beyond) : beyond / (Piecewise.power(beyond, POWER) + 1)**(1 / POWER)
          distance.clip(nil, threshold) + far * scale
        end

        # Beyond the reach of the compression nothing is expanded.
        def expand(beyond)
          power = Piecewise.power(beyond, POWER)
          reach = (power * -1 + 1).clip(1e-12, nil)
          Piecewise.select(beyond < 1.0, beyond / reach**(1 / POWER), beyond)
        end
      end
    end
  end
end
