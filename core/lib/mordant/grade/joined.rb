# frozen_string_literal: true

module Mordant
  module Grade
    # Recipes one after another, as one: a shot's own and those of the washes over it.
    # Each has been checked by itself; steps side by side stay within their own.
    class Joined < Recipe
      # @param recipes [Array<Recipe>] in signal order
      def initialize(recipes) # rubocop:disable Lint/MissingSuper
        @recipes = recipes
        @entries = recipes.flat_map(&:entries).freeze
        freeze
      end

      def spans = @recipes.flat_map(&:spans)

      def bundles = @recipes.flat_map(&:bundles)

      # @return [Array<Array<Entry>>]
      def strands = @recipes.flat_map(&:strands)

      def began(frames) = Joined.new(@recipes.map { |recipe| recipe.began(frames) })

      def weakened(share) = Joined.new(@recipes.map { |recipe| recipe.weakened(share) })

      protected

      def standing(frame) = Joined.new(@recipes.map { |recipe| recipe.at(frame) })

      # Entries in order, in place of each recipe's own.
      def with(entries)
        left = entries.dup
        Joined.new(@recipes.map { |recipe| recipe.replaced(left.shift(recipe.entries.size)) })
      end

      def picked(ids) = Joined.new(@recipes.map { |recipe| recipe.picked(ids) })
    end
  end
end
