# frozen_string_literal: true

module Mordant
  module Scopes
    # The readings that go with a picture in one answer.
    class Instruments
      # Rows of a picture that share a level at about two thirds of full brightness.
      TYPICAL_SHARE = 24.0

      # @param working [Frame] log codes of the working space
      # @param final [Frame] display code values on the same raster
      def initialize(working, final, space: Colour::WorkingSpace.default)
        @working, @final, @space = working, final, space
      end

      # @return [Hash] columns, levels, the traces behind the staves, and where channels begin and end
      def header
        {columns:, levels: Waveform::LEVELS, tone: ToneTrace.new(@working, space: @space).to_h, extents: Extents.new(traces).to_h}
      end

      # @return [Hash{Symbol => String}] luma, red, green, blue: brightness 0..255 by
      #   column and level, one byte each, level 0 first
      def parts
        typical = @final.size / TYPICAL_SHARE / columns
        traces.transform_values { |trace| Density.brightness(trace, typical:).to_binary }
      end

      private

      def traces = @traces ||= %i[luma red green blue].zip([Waveform.luma(@final), *Waveform.parade(@final)]).to_h

      def columns = Waveform.columns(@final.width)
    end
  end
end
