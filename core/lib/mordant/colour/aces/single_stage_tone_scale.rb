# frozen_string_literal: true

module Mordant
  module Colour
    module ACES
      # The tone scale of the parametric output transforms: reference rendering and
      # display curve in one, for a display's black, mid grey and peak.
      #
      # Source: ACESlib.SSTS.ctl and ACESlib.OutputTransforms.ctl 1.1.
      class SingleStageToneScale
        GREY = 0.18
        MIN_STOP_SDR = -6.5
        MAX_STOP_SDR = 6.5
        MIN_STOP_RRT = -15.0
        MAX_STOP_RRT = 18.0
        MIN_LUM_SDR = 0.02 # cd/m2
        MAX_LUM_SDR = 48.0
        MIN_LUM_RRT = 0.0001
        MAX_LUM_RRT = 10_000.0
        MID_LUMINANCE = 4.8 # cd/m2, before mid grey is moved
        MID_SLOPE = 1.55
        # Share of the way up that the middle coefficients stand, by stops.
        BEND_LOW = [[MIN_STOP_RRT, 0.18], [MIN_STOP_SDR, 0.35]].freeze
        BEND_HIGH = [[MAX_STOP_SDR, 0.89], [MAX_STOP_RRT, 0.90]].freeze
        HALVINGS = 80

        # @param black [Float] cd/m2
        # @param middle [Float] cd/m2 that mid grey is shown at
        # @param peak [Float] cd/m2
        def initialize(black:, middle:, peak:)
          @black, @peak = black, peak
          @spline = spline(0.0)
          @spline = spline(Math.log2(inverse(middle)) - Math.log2(GREY))
          freeze
        end

        # @param light [Numo::DFloat] AP1, linear
        # @return [Numo::DFloat] display light, 0 at black and 1 at peak
        def call(light) = (@spline.call(light) - @black) / (@peak - @black)

        private

        # @param shift [Float] stops by which the curve moves to darker light
        def spline(shift)
          min = GREY * 2.0**interpolate([[Math.log10(MIN_LUM_RRT), MIN_STOP_RRT], [Math.log10(MIN_LUM_SDR), MIN_STOP_SDR]], Math.log10(@black))
          max = GREY * 2.0**interpolate([[Math.log10(MAX_LUM_SDR), MAX_STOP_SDR], [Math.log10(MAX_LUM_RRT), MAX_STOP_RRT]], Math.log10(@peak))
          moved = ->(x) { x * 2.0**-shift }
          SegmentedSpline.new(low: low(min), high: high(max), min: [moved[min], @black], mid: [moved[GREY], MID_LUMINANCE], max: [moved[max], @peak])
        end

        def low(min)
          step = (Math.log10(GREY) - Math.log10(min)) / 3
          bottom, middle = Math.log10(@black), Math.log10(MID_LUMINANCE)
          bend = bottom + interpolate(BEND_LOW, Math.log2(min / GREY)) * (middle - bottom)
          [bottom, bottom, bend, middle - MID_SLOPE * step / 2, middle + MID_SLOPE * step / 2, middle + MID_SLOPE * step / 2]
        end

        def high(max)
          step = (Math.log10(max) - Math.log10(GREY)) / 3
          middle, top = Math.log10(MID_LUMINANCE), Math.log10(@peak)
          bend = middle + interpolate(BEND_HIGH, Math.log2(max / GREY)) * (top - middle)
          [middle - MID_SLOPE * step / 2, middle + MID_SLOPE * step / 2, bend, top, top, top]
        end

        # Straight between two points, held beyond them.
        def interpolate(points, x)
          (x0, y0), (x1, y1) = points
          y0 + (x.clamp(x0, x1) - x0) * (y1 - y0) / (x1 - x0)
        end

        # The light shown at a luminance, by halving.
        def inverse(luminance)
          low, high = -30.0, 30.0 # log2
          HALVINGS.times do
            middle = (low + high) / 2
            (@spline.at(2.0**middle) < luminance) ? low = middle : high = middle
          end
          2.0**((low + high) / 2)
        end
      end
    end
  end
end
