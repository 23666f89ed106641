# frozen_string_literal: true

module Mordant
  module Area
    # How much of a picture's detail below a size is kept: luma and the differences from it
    # apart.
    #
    #   y  = w . c                      luma, with the working space's weights
    #   y' = y + luma * (y - G y)       G: a Gaussian
    #   d' = d + colour * (d - G d)     d = c - y
    class Detail
      # @param size [Float] the Gaussian's standard deviation, as a share of the picture's height
      # @param luma [Float] -1.0 takes the detail away, 0.0 leaves it, 1.0 doubles it
      # @param colour [Float] the same of the differences from luma
      # @param weights [Array<Float>] of luma
      def initialize(size:, luma:, colour:, weights:)
        @size, @luma, @colour, @weights = size, luma, colour, weights
        freeze
      end

      # @param raster [#height]
      # @return [Integer] pixels
      def margin(raster) = gaussian(raster).margin

      # @param rgb [Numo::SFloat] [3, n] of the moment's window; never written to
      # @param moment [Grade::Moment]
      # @return [Numo::SFloat] [3, n]
      def call(rgb, moment)
        blur = ->(plane) { gaussian(moment).call(plane, moment.window) }
        y = (0..2).map { |channel| rgb[channel, true] * @weights[channel] }.reduce(:+)
        light = y - blur.call(y)
        out = Numo::SFloat.new(*rgb.shape).allocate
        3.times do |channel|
          plane = rgb[channel, true].dup
          out[channel, true] = plane + light * @luma + (@colour.zero? ? 0.0 : (plane - blur.call(plane) - light) * @colour)
        end
        out
      end

      private

      def gaussian(raster) = Gaussian.new(@size * raster.height)
    end
  end
end
