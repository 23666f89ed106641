# frozen_string_literal: true

module Mordant
  module Rendition
    # Colours a channel of which is brighter than the screen can be, brought towards the grey of their luminance, near ones a little, so that they
    # keep their differences: d, how far a colour has gone from that grey to where its brightest channel meets the peak, bends between NEAR and FAR so
    # that FAR comes to lie at 1. For colours beyond NEAR; see Where.
    class WithinPeak
      NEAR = 0.9
      FAR = 2.5
      SCALE = Bend.scale(FAR, NEAR)

      # @param weights [Array<Float>] of red, green and blue in luminance
      # @param peak [Float] of a channel
      def initialize(weights, peak)
        @weights, @peak = weights, peak
        freeze
      end

      # @param planes [Array<Numo::NArray>] light of colours that are beyond NEAR
      # @return [Array<Numo::NArray>]
      def call(planes)
        grey = planes.zip(@weights).map { |plane, weight| plane * weight }.reduce(:+).clip(nil, @peak)
        most = planes.reduce { |high, plane| high.clip(plane, nil) }
        distance = (most - grey) / (grey * -1.0 + @peak * (1 + 1e-6))
        held = distance.clip(nil, NEAR) + Bend.call((distance.clip(NEAR, nil) - NEAR) / SCALE) * SCALE
        share = held / distance.clip(NEAR, nil)
        planes.map { |plane| grey + (plane - grey) * share }
      end
    end
  end
end
