# frozen_string_literal: true

module Mordant
  module Scopes
    # A patch of skin against the skin-tone line, in the plane of the colour differences
    # (Cb, Cr) of display codes, see Signal.
    #
    # The line stands at LINE degrees, counted from Cb towards Cr: the axis I of the
    # older television colour system, which lies 33 degrees from Cr, and near which skin
    # of every depth falls. Angles beyond it lead to yellow, and past yellow to green;
    # short of it to red, and past red to magenta.
    class Skin
      LINE = 123.0 # degrees
      # Degrees from the line at which BT.709 yellow and red themselves stand.
      YELLOW = 52.0
      RED = -20.0
      FAR = 90.0
      # Within this a patch is on the line, degrees.
      NEAR = 1.5
      LEAST = 0.01 # distance from grey below which no angle can be told
      MOST_POINTS = 240 # shown of a patch

      # @param frame [Frame] in display code values
      # @param region [Array<Float>] see Media::Codes#crop
      # @raise [ParameterError] of an odd region
      def initialize(frame, region)
        signal = Signal.new(frame.with(frame.rgb.clip(0.0, 1.0)), region:)
        @cb, @cr, @luma = signal.cb, signal.cr, signal.luma
        @middle = [@cb, @cr].map(&:median)
      end

      # @return [Float] of its medians, degrees 0..360
      def angle = (Math.atan2(*@middle.reverse) * 180 / Math::PI) % 360

      # @return [Float] degrees from the line, -180..180, positive towards yellow
      def off = (angle - LINE + 180) % 360 - 180

      # @return [Float] distance from grey
      def saturation = Math.hypot(*@middle)

      # @return [String] which way it is off, in words
      def direction
        return "grey" if saturation < LEAST
        return "on the line" if off.abs <= NEAR
        return "nothing like skin" if off.abs > FAR
        return (off > YELLOW) ? "greener" : "yellower" if off.positive?

        (off < RED) ? "more magenta" : "redder"
      end

      # points: Cb and Cr of some of its pixels
      def to_h
        {angle: angle.round(1), off: off.round(1), saturation: saturation.round(4), direction:, level: @luma.median.round(4), line: LINE, middle: @middle.map { |x| x.round(4) }, points:}
      end

      private

      def points
        apart = [(@cb.size.to_f / MOST_POINTS).ceil, 1].max
        @cb.to_a.each_slice(apart).map(&:first).zip(@cr.to_a.each_slice(apart).map(&:first)).map { |pair| pair.map { |x| x.round(4) } }
      end
    end
  end
end
