# frozen_string_literal: true

module Mordant
  module Scopes
    # How often each level occurs in each column of a picture.
    #
    # Shape of a trace: Numo::UInt32 [columns, LEVELS], level 0 first. Level k
    # holds the four 10-bit codes 4k..4k+3.
    module Waveform
      LEVELS = 256
      MOST_COLUMNS = 256

      module_function

      # @param signal [Signal]
      # @param channel [Symbol] see Signal#levels
      # @return [Numo::UInt32] [columns, LEVELS]
      def trace(signal, channel) = signal.trace(channel)

      # @param width [Integer] pixels
      # @return [Integer] columns a picture of that width is counted in
      def columns(width) = [width, MOST_COLUMNS].min

      # @return [Numo::SFloat] [pixels], the place of level 0 in the column that each pixel counts in
      def firsts(width, height)
        kept = @firsts&.at(0) == width && @firsts.at(1)
        kept = (Numo::SFloat.cast(column(width) * LEVELS).reshape!(1, width) + Numo::SFloat.zeros(height, 1)).reshape!(width * height) unless kept && kept.size >= width * height
        @firsts = [width, kept]
        kept[0...(width * height)]
      end

      # @return [Numo::Int32] [width], the column each pixel of a row counts in
      def column(width) = Numo::Int32.cast(Numo::Int64.new(width).seq * columns(width) / width)
    end
  end
end
