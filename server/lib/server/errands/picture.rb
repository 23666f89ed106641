# frozen_string_literal: true

module Server
  module Errands
    # A picture of the full raster, as it was when it was asked for: what is graded meanwhile
    # does not reach it. The base of what is done with one.
    class Picture
      # @param cut [Cut]
      # @param body [Hash] as a picture's request says, with a second one or none
      # @return [Hash] the same, with the recipes that make it
      # @raise [Mordant::Error]
      def self.held(cut, body)
        second = body["second"] || {}
        wish = Pictures::Second.of(Pictures::Asked.wish(cut, body), second, "second")
        recipes = wish.shots.flat_map(&:layers).to_h { |recipe| [recipe.id, wish.trial.fetch(recipe.id) { recipe.grade }] }
        body.merge("second" => second.except("trial"), "trial" => recipes.map { |recipe, grade| {"recipe" => recipe, "document" => grade.to_h} })
      end

      def self.forget(_errand) = nil

      # @param cut [Cut]
      # @param body [Hash] of held
      # @raise [Mordant::Error]
      def initialize(cut, body)
        @cut, @body = cut, body
        @wish = Pictures::Second.of(Pictures::Asked.wish(cut, body), body["second"] || {}, "second")
        @wish.shot # a frame of the cut
      end

      def single? = false

      def count = 1
    end
  end
end
