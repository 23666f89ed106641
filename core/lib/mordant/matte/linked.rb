# frozen_string_literal: true

module Mordant
  module Matte
    # The matte of another step: of its own recipe, or of another shot. It stays linked: what changes there
    # changes here.
    #
    # Cropping hides what of it lies outside a frame, in the picture it comes from; placing moves what is
    # left. Neither changes the other.
    class Linked < Contributor
      include Placed
      include Elsewhere

      named :linked, "Matte from"

      text :shot, label: "shot", from: :reference, neutral: "", about: "Id of the shot; none: its own."
      text :step, label: "step", from: :reference, neutral: "", about: "Id of the step there whose matte it is."
      text :point, label: "taken", from: %w[refined contributors], neutral: "refined", about: "After the refinements there, or before."

      # @return [Boolean] of a step of the same shot
      def own? = shot.empty?

      def chosen? = !step.empty?

      def resolved(resolver) = chosen? ? with_source(resolver.linked(self)) : self

      private

      def missing = own? ? "step #{step} of the same shot" : "step #{step} of shot #{shot}"
    end
  end
end
