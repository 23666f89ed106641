# frozen_string_literal: true

module Mordant
  module Grade
    # Which pixels a step acts on: those of its matte, those it changes, or those of one of its regions.
    class Acting
      # Change of a log code that counts in full.
      FULL = 0.02

      # @param recipe [Recipe]
      # @param id [String] of a step
      # @param region [String, nil] see Steps::Step.regions
      # @param contributor [String, nil] id of one of its matte's, alone, or with upto those before it too
      # @param whole [Boolean] its matte, also where that leaves nothing out
      # @yieldparam recipe [Recipe] whose Plan is wanted
      # @yieldreturn [Plan]
      # @raise [ParameterError] of a step, a region or a contributor that is not there
      def initialize(recipe, id:, region: nil, contributor: nil, upto: false, whole: false, &plan)
        recipe = Links.within(recipe)
        @before = plan.call(recipe.before(id))
        @entry = recipe.entries.find { |entry| entry.id == id }
        known = @entry.step.class.regions
        raise ParameterError.new(path: "region", expected: known.join(", "), found: region) unless region.nil? || known.include?(region.to_sym)

        @region = region&.to_sym
        @matte = contributor ? part(contributor, upto) : (@entry.matte if whole || @entry.masked?)
        @after = plan.call(recipe.only([*before_ids(recipe, id), id])) unless @region || @matte
      end

      # @param moment [Moment] of codes as decoded
      # @param contributor [String] id of one of the matte's
      # @return [Numo::SFloat] [3, n] log codes that it looks at
      # @raise [ParameterError]
      def seen(moment, contributor) = look(sight(moment), part(contributor, false))

      # @return [Array<Numo::SFloat>] the same, and [n] what it takes of that
      def key(moment, contributor)
        sight, alone = sight(moment), part(contributor, false)
        [look(sight, alone), alone.weights(sight)]
      end

      # @param moment [Moment] of codes as decoded
      # @return [Numo::SFloat] [n] of its window, 0..1
      def weights(moment)
        return matte_weights(moment) if @matte && @region.nil?

        input = @before.picture(moment)
        return @entry.step.region_weights(@region, planes(input), @before.space) if @region

        change = (@after.picture(moment).rgb - input.rgb).abs.max(axis: 0)
        (change * (1 / FULL)).clip(0.0, 1.0)
      end

      private

      def part(contributor, upto)
        raise ParameterError.new(path: "contributor", expected: "one of the step's matte", found: contributor) unless @entry.matte

        @entry.matte.part(contributor, upto:)
      end

      def look(sight, alone)
        one = alone.contributors.first
        sight.rgb(one.respond_to?(:taken) ? one.taken : "step")
      end

      def matte_weights(moment) = @matte.weights(sight(moment))

      def sight(moment) = Matte::Sight.new(moment.from(Origin.new(@before, moment)), @before.space) { |other| @before.picture(other).rgb }

      def before_ids(recipe, id) = recipe.entries.map(&:id).take_while { |one| one != id }

      # In the step's own domain.
      def planes(input)
        space = @before.space
        own = Colour::Conversion.new(from: space.log, to: space.encoding_of(@entry.step.class.domain)).chain.call(input.rgb)
        Array.new(3) { |channel| own[channel, true].dup }
      end
    end
  end
end
