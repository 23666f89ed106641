# frozen_string_literal: true

module Mordant
  module Grade
    # Mattes of a recipe that are linked to those of other steps of it: where each gets its source
    # from, and that no circle is closed. A matte depends on those that it is linked to, and where it
    # looks at what its step gets, on those of the steps before it.
    class Links
      class << self
        # @param recipe [Recipe]
        # @return [Recipe] whose own links have their sources
        # @raise [ParameterError] of a step that is not there, or of a circle, with its way
        def within(recipe) = linked?(recipe) ? new(recipe).recipe : recipe

        # @raise [ParameterError] of a circle
        def check(recipe)
          new(recipe, lenient: true).recipe if linked?(recipe)
        end

        private

        def linked?(recipe) = recipe.entries.any? { |entry| own?(entry) }

        def own?(entry) = entry.matte&.contributors&.any? { |one| one.is_a?(Matte::Linked) && one.own? && one.source.nil? }
      end

      # @param recipe [Recipe]
      # @param lenient [Boolean] a step that is not there may be in what the recipe is put together with
      def initialize(recipe, lenient: false)
        @recipe, @lenient = recipe, lenient
        @made = {}
      end

      def recipe = @recipe.replaced(@recipe.entries.map { |entry| made(entry, []) })

      private

      # @param trail [Array<Entry>] that led there
      def made(entry, trail)
        return @made[entry.id] if @made[entry.id]

        circle(trail, entry) if trail.include?(entry)
        @made[entry.id] = entry.resolved(Resolver.new(->(link) { place(link, [*trail, entry]) }))
      end

      Resolver = Struct.new(:place) do
        def linked(link) = (link.own? && link.source.nil?) ? place.call(link) : link.source

        def clip(clip) = clip.source

        def path(_id) = nil
      end
      private_constant :Resolver

      def place(link, trail)
        index = @recipe.entries.find_index { |entry| entry.id == link.step }
        unless index
          return if @lenient

          raise ParameterError.new(path: "matte of #{trail.last.name}", expected: "a step that is there to take the matte from", found: link.step)
        end
        target = made(@recipe.entries[index], trail)
        seen = target.matte&.sees_step? ? @recipe.entries.first(index).map { |entry| made(entry, [*trail, @recipe.entries[index]]) } : []
        Matte::Place.new(@recipe.replaced(seen), target, link.point)
      end

      def circle(trail, entry)
        way = [*trail.drop_while { |one| !one.equal?(entry) }, entry].map(&:name)
        raise ParameterError.new(path: "matte of #{entry.name}", expected: "links without a circle", found: way.join(" → "))
      end
    end
  end
end
