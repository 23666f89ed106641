# frozen_string_literal: true

module Mordant
  module Scopes
    # Where the channels of a picture begin, lie and end: the levels that ENDS of the
    # pixels are below, half of them, and ENDS above.
    class Extents
      ENDS = 0.005

      # @param counts [Hash{Symbol => Numo::UInt32}] of each channel by equal levels, see Histogram
      def initialize(counts)
        @counts = counts
      end

      # @return [Hash{Symbol => Array<Float>}] low, middle and high as shares of the full range
      def to_h = @counts.transform_values { |counts| levels(counts) }

      private

      # Within the level that each falls into, by how much of it is needed.
      def levels(counts)
        sums = Numo::DFloat.cast(counts).cumsum.to_a
        last = counts.size - 1
        [ENDS, 0.5, 1 - ENDS].map do |share|
          wanted = sums.last * share
          level = sums.bsearch_index { |sum| sum >= wanted }
          inside = (wanted - (level.zero? ? 0.0 : sums[level - 1])) / [counts[level], 1].max
          ((level - 0.5 + inside) / last).clamp(0.0, 1.0).round(4)
        end
      end
    end
  end
end
