# frozen_string_literal: true

module Mordant
  module Matte
    # What a matte sees at a moment: the picture that its step gets and the one that the first step
    # gets, in log codes of the working space. Made for one moment.
    class Sight
      # Where a contributor takes its picture from.
      TAKEN = %w[step first].freeze
      NOTHING = Grade::Recipe.new(Grade::Recipe::EMPTY_DOCUMENT)
      private_constant :NOTHING

      # @return [Grade::Moment]
      attr_reader :moment
      # @return [Colour::WorkingSpace]
      attr_reader :space

      # @param moment [Grade::Moment] with an origin, where something in the matte sees more than its step's input
      # @param space [Colour::WorkingSpace]
      # @yieldparam moment [Grade::Moment]
      # @yieldreturn [Numo::SFloat] [3, n] what the step gets there
      def initialize(moment, space, &input)
        @moment, @space, @input = moment, space, input
        @seen, @planes = {}, {}
      end

      # @param taken [String] one of TAKEN
      # @return [Numo::SFloat] [3, n] of the moment's window; never to be written to
      def rgb(taken = "step") = @seen[taken] ||= (taken == "first") ? through(NOTHING) : @input.call(moment)

      # Planes of a picture, made once for all keys that look at it.
      #
      # @param key [Object] of the picture
      # @yieldreturn [Array<Numo::SFloat>] its planes
      # @return [Array<Numo::SFloat>]
      def planes(key) = @planes[key] ||= yield

      # Gives planes back that were made for keys, which are large; those of a picture stay.
      def free = @planes.each_value { |planes| planes.each(&:free) }.clear

      # @param recipe [Grade::Recipe]
      # @return [Numo::SFloat] [3, n] what it makes of the source
      def through(recipe) = moment.origin.picture(recipe, moment).rgb

      # @param margin [Integer] pixels
      # @return [Sight] of more around
      def grown(margin) = at(moment.grown(margin))

      # @param other [Grade::Moment]
      # @return [Sight]
      def at(other) = (other.window == moment.window) ? self : Sight.new(other, space, &@input)

      # @param recipe [Grade::Recipe]
      # @return [Sight] of a step that stands after it
      def after(recipe) = Sight.new(moment, space) { |other| moment.origin.picture(recipe, other).rgb }
    end
  end
end
