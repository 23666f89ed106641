# frozen_string_literal: true

module Mordant
  module Noise
    # Where a recipe is parted so that what its last Noise step leaves can be kept, and what is kept of that: what has been taken away, as
    # half floats, which are as fine as it is little.
    #
    # before: Recipe of what goes into the step; upto: with it; after: of all that follows.
    Kept = Struct.new(:before, :upto, :after, keyword_init: true) do
      # @param recipe [Grade::Recipe] as it is at a frame
      # @return [Kept, nil] nil of one that takes no noise away, or sees other frames after that
      def self.of(recipe)
        return unless recipe.entries.any? { |entry| Kept.takes?(entry) }

        groups = Grade::Links.within(recipe).strands
        at = groups.rindex { |group| group.any? { |entry| Kept.takes?(entry) } }
        before, upto, after = [groups.first(at), groups.first(at + 1), groups.drop(at + 1)].map { |some| Grade::Recipe.of(some) }
        new(before:, upto:, after:) if after.window.zero?
      end

      def self.takes?(entry) = entry.acts? && entry.step.class.circuit == :noise

      # @param came [Frame] what went into the step, in log codes
      # @param left [Frame] what it has left
      # @return [String] binary
      def self.packed(came, left)
        taken = (left.rgb - came.rgb).flatten
        taken[~taken.isfinite] = 0.0 if taken.sum.nan? # what is no number is left as it came
        Media::Half.bits(taken).to_binary
      end

      # @param came [Frame]
      # @param data [String] as #packed
      # @return [Frame, nil] what was left, to within 2^-11 of what was taken; nil of data of another size
      def self.unpacked(came, data)
        return unless data.bytesize == came.rgb.size * 2

        came.with(came.rgb + Media::Half.decode(Numo::UInt16.from_binary(data)).reshape(*came.rgb.shape))
      end
    end
  end
end
