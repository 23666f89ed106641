# frozen_string_literal: true

module Mordant
  module Grade
    # What of a picture is picture, and not bars: even dark rows at top and bottom, columns at both sides, that
    # are black in the source.
    #
    # Lines are taken for bars where no channel varies along them by more than EVEN and none is brighter than DARK; as many at
    # one side as at the other, so that a dark sky is no bar, and none where a whole side is dark.
    module ActiveArea
      EVEN = 4.0 / 255 # of the full range, what coding leaves of black
      DARK = 0.13 # of the full range: black of legal and of logarithmic codes lies below it
      MOST = 0.4 # of a picture, bars at one side

      module_function

      # @param rgb [Numo::NArray] [3, width * height]
      # @param most [Numeric] value of the full range
      # @param dark [Float] of the full range, up to which a line can be one of a bar
      # @return [Window] in pixels
      def of(rgb, width, height, most:, dark: DARK)
        planes = rgb.reshape(3, height, width)
        down = bars(height, most, dark) { |row| planes[true, row, true] }
        across = bars(width, most, dark) { |column| planes[true, down...(height - down), column] }
        Window.new(left: across, top: down, width: width - 2 * across, height: height - 2 * down)
      end

      # Lines at each side, of so many.
      def bars(count, most, dark)
        [0..., 1...].map.with_index do |from, side|
          from.first((count * MOST).floor).index { |at| !bar?(yield(side.zero? ? at : -at), most, dark) } || 0
        end.min
      end

      def bar?(line, most, dark) = line.max <= dark * most && (line.max(axis: 1) - line.min(axis: 1)).max <= EVEN * most
      private_class_method :bars, :bar?
    end
  end
end
