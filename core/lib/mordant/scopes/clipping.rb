# frozen_string_literal: true

module Mordant
  module Scopes
    # Marks pixels of a picture whose codes have come to an end: hatched where any channel
    # is at the highest code, and where all are at the lowest.
    module Clipping
      # Display codes of the marks.
      HIGH = [0.77, 0.39, 0.31].freeze
      LOW = [0.37, 0.56, 0.72].freeze
      HATCH = 4 # pixels of a stripe

      module_function

      # @param signal [Signal]
      # @return [Array<Numo::Bit>] [n]: high, low
      def pixels(signal)
        levels = %i[red green blue].map { |channel| signal.levels(channel) }
        [levels.map { |level| level.eq(Signal::CODES - 1) }.reduce(:|), levels.map { |level| level.eq(0) }.reduce(:&)]
      end

      # @param drawn [Frame] codes of a display, on the signal's raster
      # @param signal [Signal]
      # @return [Frame]
      def paint(drawn, signal)
        stripes = hatch(drawn.width, drawn.height)
        pixels(signal).zip([HIGH, LOW]).reduce(drawn) do |frame, (at, colour)|
          marked = Numo::SFloat.cast(at & stripes)
          frame.with(Numo::NArray.vstack(Array.new(3) { |channel| frame.rgb[channel, true] * (marked * -1.0 + 1.0) + marked * colour[channel] }))
        end
      end

      def hatch(width, height)
        place = Numo::Int32.new(1, width).seq + Numo::Int32.new(height, 1).seq
        ((place / HATCH) & 1).eq(0).reshape(width * height)
      end
    end
  end
end
