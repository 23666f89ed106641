# frozen_string_literal: true

module Mordant
  module Area
    # What steps have in common that take detail below a size away or raise it: parameters size, luma
    # and colour, of which the size alone changes no picture. They answer +sign+: -1.0 takes away,
    # 1.0 raises; see Detail.
    module Textured
      def neutral? = luma.zero? && colour.zero?

      # @param space [Colour::WorkingSpace]
      # @return [Detail]
      def process(space) = Detail.new(size:, luma: sign * luma, colour: sign * colour, weights: space.luminance_weights)

      # @return [Float] share of the picture's height
      def detail = size

      # @param raster [#height]
      # @return [Integer] pixels
      def margin(raster) = Gaussian.new(size * raster.height).margin
    end
  end
end
