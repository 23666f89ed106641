# frozen_string_literal: true

module Mordant
  module Scopes
    # What instruments measure: the codes of a picture for a view, all of it or a region.
    #
    # Luma and colour differences are those of the view's own signal: the weights of
    # ITU-R BT.709, item 3.2, or BT.2020, table 4; of other primaries their luminances.
    # Levels are 10-bit full-range codes; codes beyond the ends count at the ends, NaN at 0.
    class Signal
      CODES = 1024

      # @return [Integer] pixels across and down, of the region
      attr_reader :width, :height
      # @return [String] encoding id
      attr_reader :encoding

      # @param frame [Frame] codes of a view
      # @param region [Array<Float>, nil] see Region
      # @raise [ParameterError] of an odd region
      def initialize(frame, region: nil)
        @encoding = frame.encoding
        columns, rows = region ? Region.pixels(region, frame.width, frame.height) : [0...frame.width, 0...frame.height]
        @width, @height = columns.size, rows.size
        rgb = region ? Region.cut(frame, region) : frame.rgb
        @planes = Array.new(3) { |channel| rgb[channel, true].dup }
      end

      # @return [Integer] pixels
      def size = width * height

      def red = @planes[0]

      def green = @planes[1]

      def blue = @planes[2]

      # @return [Array<Float>] of red, green and blue in luma
      def weights = Colour.encoding(encoding).luma_weights

      def luma = @luma ||= @planes.zip(weights).map { |plane, weight| plane * weight }.reduce { |sum, plane| (sum.inplace + plane).out_of_place! }

      # @return [Numo::SFloat] -0.5..0.5 within the gamut
      def cb = @cb ||= (blue - luma) * (0.5 / (1 - weights[2]))

      # @return [Numo::SFloat] -0.5..0.5 within the gamut
      def cr = @cr ||= (red - luma) * (0.5 / (1 - weights[0]))

      # @param channel [Symbol] :luma, :red, :green or :blue
      # @return [Numo::Int32] [n], 0..1023
      def levels(channel)
        (@levels ||= {})[channel] ||= self.class.level(public_send(channel))
      end

      # @param channel [Symbol]
      # @return [Numo::UInt32] [1024], how often each level occurs
      def counts(channel) = (@counts ||= {})[channel] ||= levels(channel).bincount(minlength: CODES)

      # @param plane [Numo::SFloat]
      # @return [Numo::Int32] 0..1023
      def self.level(plane)
        # NaN becomes the least integer
        scaled = plane.clip(0.0, 1.0)
        Numo::Int32.cast(((scaled.inplace * (CODES - 1)) + 0.5).out_of_place!).clip(0, nil)
      end
    end
  end
end
