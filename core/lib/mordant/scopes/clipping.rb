# frozen_string_literal: true

module Mordant
  module Scopes
    # Marks pixels of a picture whose codes have come to an end: hatched where any channel
    # is at the highest code, and where all are at the lowest.
    module Clipping
      # Display codes of the marks.
      HIGH = [0.77, 0.39, 0.31].freeze
      LOW = [0.37, 0.56, 0.72].freeze

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
        stripes = Mark.stripes(drawn)
        pixels(signal).zip([HIGH, LOW]).reduce(drawn) { |frame, (at, colour)| Mark.paint(frame, Numo::SFloat.cast(at & stripes), colour) }
      end
    end
  end
end
