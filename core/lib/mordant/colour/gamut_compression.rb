# frozen_string_literal: true

module Mordant
  module Colour
    # Colours beyond a gamut brought within it: per channel the distance from the
    # largest channel, in shares of that, bends between a threshold and a limit so
    # that the limit comes to lie on the edge. The largest channel stays.
    #
    # Source: Academy TB-2021-001, parametric form; equation of the compression
    # function with power.
    class GamutCompression
      # @param limit [Array<Float>] distances brought to 1, each above 1
      # @param threshold [Array<Float>] distances up to which nothing moves, each below 1
      # @param power [Float]
      # @param inverse [Boolean]
      def initialize(limit:, threshold:, power:, inverse: false)
        @threshold, @power, @inverse = threshold, power, inverse
        @scales = limit.zip(threshold).map do |far, near|
          (far - near) / (((1 - near) / (far - near))**-power - 1)**(1 / power)
        end.freeze
        freeze
      end

      def merge(_following) = nil

      def tabulate = self

      # @param planes [Array<Numo::NArray>] light
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
        threshold, scale = @threshold[channel], @scales[channel]
        beyond = (distance.clip(threshold, nil) - threshold) / scale
        far = @inverse ? expand(beyond) : beyond / (Piecewise.power(beyond, @power) + 1)**(1 / @power)
        distance.clip(nil, threshold) + far * scale
      end

      # Beyond the reach of the compression nothing is expanded.
      def expand(beyond)
        power = Piecewise.power(beyond, @power)
        reach = (power * -1 + 1).clip(1e-12, nil)
        Piecewise.select(beyond < 1.0, beyond / reach**(1 / @power), beyond)
      end
    end
  end
end
