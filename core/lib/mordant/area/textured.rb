# frozen_string_literal: true

module Mordant
  module Area
    # What steps have in common that take detail below a size away or raise it: parameters size, luma, colour,
    # threshold and perhaps halo, of which luma and colour alone change pictures. They answer +sign+: -1.0 takes away,
    # 1.0 raises; see Detail.
    module Textured
      def neutral? = luma.zero? && colour.zero?

      # @param space [Colour::WorkingSpace]
      # @return [Detail]
      def process(space) = made(space.luminance_weights)

      # @return [Float] share of the picture's height
      def detail = size

      # @param raster [#height]
      # @return [Integer] pixels
      def margin(raster) = made(nil).margin(raster)

      private

      def made(weights) = Detail.new(sizes: [size], luma: [sign * luma], colour: [sign * colour], weights:, threshold:, halo: respond_to?(:halo) ? halo : 1.0)
    end
  end
end
