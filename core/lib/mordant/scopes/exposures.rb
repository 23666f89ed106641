# frozen_string_literal: true

module Mordant
  module Scopes
    # Where the light of a picture lies on the axis of log exposure, from mid grey: its darkest and lightest, and a patch of it.
    class Exposures
      ENDS = 0.001 # of the pixels lie beyond either end
      LEAST = 2.0**-20

      # @param frame [Frame] log codes of the working space
      # @param space [Colour::WorkingSpace]
      # @param patch [Array<Float>, nil] see Region
      # @raise [ParameterError]
      def initialize(frame, space:, patch: nil)
        @frame, @space, @patch = frame, space, patch
      end

      # @return [Hash{Symbol => Object}] ends: darkest and lightest; patch: of a part of the picture, where there is one
      def to_h
        light = luminance
        sorted = light.sort
        ends = [ENDS, 1 - ENDS].map { |share| exposure(sorted[((sorted.size - 1) * share).round]) }
        {ends:, **(@patch ? {patch: exposure(within(light).mean)} : {})}
      end

      private

      def luminance
        planes = Array.new(3) { |channel| @space.transfer.decode(Numo::DFloat.cast(@frame.rgb[channel, true])) }
        planes.zip(@space.luminance_weights).map { |plane, weight| plane * weight }.reduce(:+)
      end

      def within(light)
        columns, rows = Region.pixels(@patch, @frame.width, @frame.height)
        light.reshape(@frame.height, @frame.width)[rows, columns]
      end

      def exposure(light) = Math.log10([light, LEAST].max / Colour::WorkingSpace::MID_GREY).round(4)
    end
  end
end
