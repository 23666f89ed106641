# frozen_string_literal: true

module Server
  module Pictures
    # A picture of a cut that somebody wants to see.
    #
    # frame: record frame; trial: recipes by their id, instead of what is stored; source:
    # without any step; test: a test picture in place of the shot's, or nil; screen: what it
    # is drawn on.
    Wish = Struct.new(:cut, :frame, :screen, :trial, :source, :test, keyword_init: true) do
      # @param shot [Shot]
      # @return [Mordant::Grade::Recipe]
      def recipe_of(shot) = source ? NOTHING : shot.grade(trial || {})

      def project = cut.project
    end

    NOTHING = Mordant::Grade::Recipe.new(Mordant::Grade::Recipe::EMPTY_DOCUMENT)
    private_constant :NOTHING
  end
end
