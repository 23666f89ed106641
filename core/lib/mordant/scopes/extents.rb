# frozen_string_literal: true

module Mordant
  module Scopes
    # Where the channels of a picture begin, lie and end: the levels that ENDS of the
    # pixels are below, half of them, and ENDS above.
    class Extents
      ENDS = 0.005

      # @param traces [Hash{Symbol => Numo::UInt32}] [columns, levels] of each channel, see Waveform
      def initialize(traces)
        @counts = traces.transform_values { |trace| trace.sum(0).to_a }
      end

      # @return [Hash{Symbol => Array<Float>}] low, middle and high as shares of the full range
      def to_h = @counts.transform_values { |counts| [ENDS, 0.5, 1 - ENDS].map { |share| level(counts, share) } }

      private

      # Within the level that it falls into, by how much of it is needed.
      def level(counts, share)
        wanted, before = counts.sum * share, 0
        counts.each_with_index do |count, level|
          if before + count >= wanted
            inside = count.zero? ? 0.5 : (wanted - before) / count
            return ((level - 0.5 + inside) / (counts.size - 1)).clamp(0.0, 1.0).round(4)
          end
          before += count
        end
      end
    end
  end
end
