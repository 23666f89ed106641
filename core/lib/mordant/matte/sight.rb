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
        @seen, @tiles = {}, {}
      end

      # @param taken [String] one of TAKEN
      # @return [Numo::SFloat] [3, n] of the moment's window; never to be written to
      def rgb(taken = "step") = @seen[taken] ||= (taken == "first") ? through(NOTHING) : @input.call(moment)

      KEPT = 700_000 # pixels of a window whose axes are kept for other keys

      # @param key [Object] of a picture
      # @yieldreturn [Array<Numo::SFloat>] its planes
      # @return [Enumerable] of pairs of a range of pixels and Axes of them
      def tiles(key)
        return @tiles[key] if @tiles[key]

        planes = yield
        made = Pointwise.each_tile(moment.window.size).lazy.map { |range| [range, Axes.new(planes.map { |plane| plane[range].dup }, space)] }
        (moment.window.size > KEPT) ? made : @tiles[key] = made.to_a
      end

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
