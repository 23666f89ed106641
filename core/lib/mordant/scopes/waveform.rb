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
      def trace(signal, channel)
        count = columns(signal.width)
        place = signal.levels(channel) >> 2
        (place.inplace + firsts(signal.width, signal.height)).out_of_place!
        place.bincount(minlength: count * LEVELS).reshape!(count, LEVELS)
      end

      # @param width [Integer] pixels
      # @return [Integer] columns a picture of that width is counted in
      def columns(width) = [width, MOST_COLUMNS].min

      # @return [Numo::UInt16] [pixels], the place of level 0 in the column that each pixel counts in
      def firsts(width, height)
        kept = @firsts&.at(0) == width && @firsts.at(1)
        kept = (Numo::UInt16.cast(column(width) * LEVELS).reshape!(1, width) + Numo::UInt16.zeros(height, 1)).reshape!(width * height) unless kept && kept.size >= width * height
        @firsts = [width, kept]
        kept[0...(width * height)]
      end
      private_class_method :firsts

      # @return [Numo::Int32] [width], the column each pixel of a row counts in
      def column(width) = Numo::Int32.cast(Numo::Int64.new(width).seq * columns(width) / width)
    end
  end
end
