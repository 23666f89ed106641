# frozen_string_literal: true

module Mordant
  module Pointwise
    # How often a formula of planes comes to each of some whole numbers, and what values come to there: a Kernel where a picture is worth it,
    # else Numo. The formula does only what Recorded has.
    class Counted
      FEW = 4096 # numbers that can be counted in parts and added up

      # @param count [Integer] planes that it is of
      # @param bins [Integer] the whole numbers are 0...bins
      # @yieldparam planes [Array<Numo::SFloat, Recorded>]; not to be written to
      # @yieldreturn [Array<Array<Numo::SFloat, Recorded>>] of each thing that is counted its number, which is cut off and held to the ends, NaN
      #   to 0; and values that are summed by it
      def initialize(count, bins, &formula)
        @bins, @formula = bins, formula
        @kinds = []
        @kernel = Kernel.new([:floats] * count) do |*planes|
          formula.call(*planes).flat_map do |number, *values|
            @kinds.push(Numo::UInt32, *[Numo::DFloat] * values.size)
            number.held(bins - 1).then { |bin| [bin.counted(bins), *values.map { |value| bin.summed(value, bins) }] }
          end
        end
        freeze
      end

      # @param planes [Array<Numo::SFloat>] vectors of one length
      # @return [Array<Numo::UInt32, Numo::DFloat>] [bins] of each thing, and of each of its values: summed in the order of the planes, where there
      #   are FEW in that of each part of them
      # @raise [ShapeError] of planes whose memory would be read past
      def call(*planes)
        size = planes.first.size
        raise ShapeError, "expected SFloat of #{size}, found #{planes.map { |plane| "#{plane.class} of #{plane.shape}" }.join(", ")}" unless planes.all? { |plane| plane.is_a?(Numo::SFloat) && plane.shape == [size] }
        return one_by_one(planes) unless @kernel.worth?(size)

        parts = (@bins <= FEW) ? Together.parts(size) : [0...size]
        Together.each(parts) { |range| tables(range.size, (range.size == size) ? planes : planes.map { |plane| plane[range] }) }.transpose.map { |of_parts| of_parts.reduce(:+) }
      end

      private

      def tables(size, planes)
        tables = @kinds.map { |kind| kind.new(@bins + 1).allocate } # the last of what comes to none
        @kernel.run(size, planes, tables)
        tables.map { |table| table[0...@bins] }
      end

      def one_by_one(planes)
        @formula.call(*planes).flat_map do |number, *values|
          bins = Numo::Int32.cast(number.clip(0, @bins - 1)).clip(0, @bins - 1) # of NaN the least integer
          [bins.bincount(minlength: @bins), *values.map { |value| bins.bincount(Numo::DFloat.cast(value), minlength: @bins) }]
        end
      end
    end
  end
end
