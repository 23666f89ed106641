# frozen_string_literal: true

module Mordant
  module Grade
    class Ladder
      # Where a ladder starts so that a hand on a step changes nothing before it: with the decoded
      # source where lattices can hold all up to that step, else with the exact result of what stands before it, in
      # log codes of the working space.
      #
      # before: recipe of what stands before the start, nil where it is the source; after: groups
      # of entries from there on.
      Start = Struct.new(:before, :after, keyword_init: true) do
        # @param recipe [Recipe] as it is at a frame
        # @param step [String, Symbol, nil] id of the step under the hand; one that is not there counts as none; AFTER_ALL of a hand on
        #   what comes after all of them
        # @param source [String] encoding id of the source's codes
        # @return [Start, nil] nil where there is no ladder: of steps that reach further after the start, and in
        #   a working space of linear light, whose values stand badly on the axes of a lattice
        def self.of(recipe, step, source:, space: Colour::WorkingSpace.default)
          groups = recipe.strands
          at = (step == self::AFTER_ALL) ? groups.size : groups.index { |group| group.any? { |entry| entry.id == step } } || 0
          start = from_source?(groups, at, source) ? new(before: nil, after: groups) : new(before: Recipe.of(groups.first(at)), after: groups.drop(at))
          start if Ladder.holds?(start.after) && (!linear?(space.log) || (start.before.nil? && start.after.all? { |group| Ladder.plain?(group) }))
        end

        # A step under the hand that is neutral yet will not be.
        def self.from_source?(groups, at, source)
          !linear?(source) && groups.first(at).all? { |group| Ladder.plain?(group) } && groups.fetch(at, []).all?(&:pointwise?)
        end

        def self.linear?(encoding) = Colour.encoding(encoding).linear?
        private_class_method :from_source?, :linear?
      end
      Start::AFTER_ALL = :after_all
    end
  end
end
