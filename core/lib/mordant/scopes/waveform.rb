# frozen_string_literal: true

module Mordant
  module Scopes
    # How often each level occurs in each column of a picture.
    #
    # Shape of a trace: Numo::UInt32 [columns, LEVELS], level 0 first. Level k
    # holds code values that round to k / (LEVELS - 1); values outside 0.0..1.0
    # count at the ends, NaN at level 0.
    module Waveform
      LEVELS = 256
      MOST_COLUMNS = 256
      # ITU-R BT.709, item 3.2.
      LUMA = [0.2126, 0.7152, 0.0722].freeze

      module_function

      # @param frame [Frame] in display code values
      # @return [Numo::UInt32] [columns, LEVELS] of luma
      def luma(frame)
        planes = Array.new(3) { |channel| frame.rgb[channel, true] * LUMA[channel] }
        trace(planes.reduce { |sum, plane| (sum.inplace + plane).out_of_place! }, frame)
      end

      # @param frame [Frame] in display code values
      # @return [Array<Numo::UInt32>] red, green and blue, each [columns, LEVELS]
      def parade(frame) = Array.new(3) { |channel| trace(frame.rgb[channel, true], frame) }

      # @param width [Integer] pixels
      # @return [Integer] columns a picture of that width is counted in
      def columns(width) = [width, MOST_COLUMNS].min

      def trace(plane, frame)
        level = Numo::Int32.cast((plane.clip(0.0, 1.0) * (LEVELS - 1)) + 0.5).clip(0, LEVELS - 1)
        count = columns(frame.width)
        column = Numo::Int32.cast(Numo::Int64.new(frame.width).seq * count / frame.width) * LEVELS
        place = level.reshape(frame.height, frame.width) + column
        place.reshape(frame.size).bincount(minlength: count * LEVELS).reshape(count, LEVELS)
      end
    end
  end
end
