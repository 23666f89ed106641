# frozen_string_literal: true

module Mordant
  module Colour
    module ACES
      # A tone curve in log10 of both axes: two quadratic B-splines that meet at
      # a mid point, straight lines beyond.
      #
      # Source: ACESlib.Tonescales.ctl, segmented_spline_c5_fwd and c9_fwd.
      class SegmentedSpline
        # Quadratic B-spline basis, monomials t^2, t, 1 against three coefficients.
        BASIS = [[0.5, -1.0, 0.5], [-1.0, 1.0, 0.5], [0.5, 0.0, 0.0]].freeze

        # @param low [Array<Float>] coefficients below the mid point, log10
        # @param high [Array<Float>] coefficients above it
        # @param min [Array<Float>] x, y of the lower end, linear
        # @param mid [Array<Float>]
        # @param max [Array<Float>]
        # @param slope_low [Float] of the line below, in log10
        # @param slope_high [Float] of the line above
        def initialize(low:, high:, min:, mid:, max:, slope_low: 0.0, slope_high: 0.0)
          @low, @high = low.freeze, high.freeze
          @min, @mid, @max = [min, mid, max].map { |point| point.map { |v| Math.log10(v) }.freeze }
          @slope_low, @slope_high = slope_low, slope_high
          freeze
        end

        # @param light [Numo::DFloat] linear; what is not positive counts as 1e-10
        # @return [Numo::DFloat] linear, positive
        def call(light)
          x = Numo::NMath.log10(light.clip(1e-10, nil))
          below = (x - @min[0]) * @slope_low + @min[1]
          above = (x - @max[0]) * @slope_high + @max[1]
          curve = Piecewise.select(x < @mid[0], spline(x, @low, @min[0], @mid[0]), spline(x, @high, @mid[0], @max[0]))
          Piecewise.exp10(Piecewise.select(x <= @min[0], below, Piecewise.select(x >= @max[0], above, curve)))
        end

        # @param light [Float]
        # @return [Float]
        def at(light) = call(Numo::DFloat[light])[0]

        private

        def spline(x, coefficients, first, last)
          intervals = coefficients.size - 3
          position = (x - first) * (intervals / (last - first)) + 0.0
          index = Numo::Int32.cast(position.clip(0, intervals)).clip(0, intervals - 1)
          t = position - index
          c0, c1, c2 = 3.times.map { |k| Numo::DFloat.cast(coefficients)[index + k].dup }
          a, b, c = 3.times.map { |k| c0 * BASIS[0][k] + c1 * BASIS[1][k] + c2 * BASIS[2][k] }
          (a * t + b) * t + c
        end
      end
    end
  end
end
