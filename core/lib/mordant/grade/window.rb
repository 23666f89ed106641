# frozen_string_literal: true

module Mordant
  module Grade
    # A part of a picture, in pixels. Immutable.
    Window = Struct.new(:left, :top, :width, :height, keyword_init: true) do
      def self.whole(width, height) = new(left: 0, top: 0, width:, height:)

      def initialize(left:, top:, width:, height:)
        super
        freeze
      end

      # @return [Integer] pixels
      def size = width * height

      # @param margin [Integer] pixels on every side, as far as the picture goes
      # @param raster [#width, #height]
      # @return [Window]
      def grown(margin, raster)
        return self if margin.zero?

        x, y = [left - margin, 0].max, [top - margin, 0].max
        Window.new(left: x, top: y, width: [left + width + margin, raster.width].min - x, height: [top + height + margin, raster.height].min - y)
      end

      # @param planes [Numo::NArray] [channels, pixels] of another window that holds this one
      # @param from [Window]
      # @return [Numo::NArray] [channels, size]; the same where both are one
      def cut(planes, from)
        return planes if self == from

        rows, columns = (top - from.top)...(top - from.top + height), (left - from.left)...(left - from.left + width)
        Pointwise.shaped(planes, planes.shape[0], from.height, from.width)[true, rows, columns].dup.reshape!(planes.shape[0], size)
      end
    end
  end
end
