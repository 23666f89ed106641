# frozen_string_literal: true

module Mordant
  module Matte
    # The matte of a step of a recipe, for those that are linked to it. Immutable.
    class Place
      # @param before [Grade::Recipe] of the steps before that one
      # @param entry [Grade::Entry] the step
      # @param point [String] see Linked
      def initialize(before, entry, point)
        @before, @entry, @point = before, entry, point
        freeze
      end

      def moving? = @entry.moving? || (sees_step? && @before.moving?)

      def at(frame) = moving? ? Place.new(@before.at(frame), @entry.at(frame), @point) : self

      # @return [Boolean] it depends on what the steps before that one make
      def sees_step? = matte ? matte.sees_step? : false

      # @return [Array] for JSON
      def stamp = [@entry.matte&.to_h, matte&.stamps, @point, *(@before.stamp if sees_step?)]

      # A step without contributors gives nothing.
      #
      # @param sight [Sight] of the source that the recipe is for
      # @return [Numo::SFloat] [n]
      def weights(sight)
        return Numo::SFloat.zeros(sight.moment.window.size) if matte.nil? || matte.contributors.empty?

        matte.weights(sight.after(@before))
      end

      private

      def matte = (@point == "contributors") ? @entry.matte&.unrefined : @entry.matte
    end
  end
end
