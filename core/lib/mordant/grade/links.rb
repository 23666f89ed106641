# frozen_string_literal: true

module Mordant
  module Grade
    # Where mattes get what they refer to from, and that no circle is closed. A matte depends on those that it
    # is linked to, and where it looks at what its step gets, on those of the steps before it.
    #
    # What there is besides one recipe, a world says: recipe(key) of a place (a shot); key(link, from), the place
    # that a Matte::Linked leads to, nil where that is left open; between(place, from, to), a source for
    # one place that comes from another; clip(contributor, key), path(id, key) and name(key). See Alone.
    class Links
      class << self
        # @param recipe [Recipe]
        # @return [Recipe] whose links to its own steps have their sources
        # @raise [ParameterError] of a step that is not there, or of a circle, with its way
        def within(recipe) = linked?(recipe) ? new(Alone.new(recipe)).recipe : recipe

        # @raise [ParameterError] of a circle; a step that is not there may be in what the recipe is put together with
        def check(recipe)
          new(Alone.new(recipe, lenient: true)).recipe if linked?(recipe)
        end

        # @return [Boolean] something in it refers to what is not in it
        def refers?(recipe) = recipe.entries.any? { |entry| entry.matte&.parts&.any? { |part| part.path_id || part.contributor.class.family == :elsewhere } }

        private

        def linked?(recipe) = recipe.entries.any? { |entry| entry.matte&.contributors&.any? { |one| one.is_a?(Matte::Linked) && one.chosen? && one.own? && one.source.nil? } }
      end

      HERE = :here
      private_constant :HERE

      # A recipe by itself.
      Alone = Struct.new(:only, :lenient) do
        def initialize(only, lenient: false) = super(only, lenient)

        def recipe(_key) = only

        def key(link, _from)
          HERE if link.own? && link.source.nil? && (!lenient || only.entries.any? { |entry| entry.id == link.step })
        end

        def between(place, _from, _to) = place

        def clip(clip, _key) = clip.source

        def path(_id, _key) = nil

        def name(_key) = nil
      end
      private_constant :Alone

      # @param world [#recipe]
      def initialize(world)
        @world = world
        @made = {}
      end

      # @param key [Object] of a place
      # @return [Recipe] whose mattes have their sources
      # @raise [ParameterError]
      def recipe(key = HERE)
        own = @world.recipe(key)
        own.replaced(own.entries.map { |entry| made(key, entry, []) })
      end

      Resolver = Struct.new(:links, :world, :key, :trail) do
        def linked(link) = links.source(link, key, trail)

        def clip(clip) = world.clip(clip, key)

        def path(id) = world.path(id, key)
      end
      private_constant :Resolver

      # @return [Object, nil] of a link; the one that it has where it is left open
      def source(link, from, trail)
        key = @world.key(link, from) or return link.source
        entries = @world.recipe(key).entries
        index = entries.find_index { |entry| entry.id == link.step }
        raise ParameterError.new(path: "matte of #{said(*trail.last)}", expected: "a step that is there to take the matte from", found: link.step) unless index

        target = made(key, entries[index], trail)
        before = target.matte&.sees_step? ? entries.first(index).map { |entry| made(key, entry, [*trail, [key, entries[index]]]) } : []
        @world.between(Matte::Place.new(@world.recipe(key).replaced(before), target, link.point), from, key)
      end

      private

      # @param trail [Array<Array(Object, Entry)>] that led there
      def made(key, entry, trail)
        node = [key, entry.id]
        return @made[node] if @made[node]

        circle(trail, key, entry) if trail.any? { |one, other| one == key && other.id == entry.id }
        @made[node] = entry.resolved(Resolver.new(self, @world, key, [*trail, [key, entry]]))
      end

      def said(key, entry) = [@world.name(key), entry.name].compact.join(" · ")

      def circle(trail, key, entry)
        way = [*trail.drop_while { |one, other| one != key || other.id != entry.id }, [key, entry]].map { |node| said(*node) }
        raise ParameterError.new(path: "matte of #{way.first}", expected: "links without a circle", found: way.join(" → "))
      end
    end
  end
end
