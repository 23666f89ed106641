# frozen_string_literal: true

module Mordant
  module Matte
    # A range of one quantity, and what picks in a picture make of it. Immutable.
    Ends = Struct.new(:low, :high) do
      # @param values [Numo::NArray] of a patch
      # @param room [Float] around them
      # @return [Ends] of nearly all of them
      def self.of(values, room)
        sorted = values.sort
        at = ->(share) { sorted[((sorted.size - 1) * share).round].to_f }
        new(at[Matte::PICKED], at[1 - Matte::PICKED]).wider(room)
      end

      def size = high - low

      def middle = (low + high) / 2

      # @return [Ends] so much wider at either end
      def wider(by) = Ends.new(low - by, high + by)

      # @return [Ends] that holds both
      def with(other) = Ends.new([low, other.low].min, [high, other.high].max)

      def held(range) = Ends.new(low.clamp(range), high.clamp(range))

      # @return [Ends] no further than places where colours end
      def within(lowest, highest) = Ends.new(low.clamp(lowest..), high.clamp(..highest))

      # How it can be cut so that another is left out, a softness away.
      #
      # @param other [Ends]
      # @param softs [Array<Float>] below and above
      # @return [Array<Array(Float, Ends)>] what share is lost, and what is left
      def without(other, softs)
        [Ends.new(other.high + softs[0], high), Ends.new(low, other.low - softs[1])].select { |one| one.size > size * 0.02 }.map { |one| [1 - one.size / [size, 1e-9].max, one] }
      end
    end
  end
end
