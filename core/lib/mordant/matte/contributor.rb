# frozen_string_literal: true

module Mordant
  module Matte
    # One part of a matte; see Matte.
    class Contributor < Declared
      # @return [Boolean] its weights depend on the picture, not on the place alone
      def self.sees_picture? = true

      # @return [Symbol] :key, :shape or :elsewhere
      def self.family = :key

      # @return [Hash] what an interface needs to know
      def self.to_h = {**super, family: family.to_s, picks: picks?}

      # @param sight [Sight] what it sees; never written to
      # @return [Numo::SFloat] [n] of the sight's window, 0..1; new each time, so that it can be used up
      def weights(sight) = raise(NotImplementedError, "#{self.class} has no weights")

      # @param raster [#height]
      # @return [Integer] pixels around one that it depends on
      def margin(_raster) = 0

      # @return [Boolean] it depends on what the steps before its own make
      def sees_step? = false

      # @return [Boolean] it changes from frame to frame by itself
      def moving? = false

      # @param shot_frame [Integer] from the shot's first one
      # @return [Contributor] as it is there
      def at(_shot_frame) = self

      # @param resolver [#linked, #clip] see Recipe#resolved
      # @return [Contributor] that has what it refers to
      def resolved(_resolver) = self

      # @return [Array] for JSON, what it depends on besides its values
      def stamps = []

      # @param there [Track::Map] where a path has taken it
      # @return [Contributor]
      def carried(_there) = self

      # @return [Track::Map, nil] where a path has taken it
      def carrying = @carried

      # @return [Array<Array(Float, Float)>] places on the plane of hue and chroma that it names; see Axes
      def places = []

      # @return [Boolean] it takes picks in the picture
      def self.picks? = method_defined?(:picked)

      # What a patch of the picture makes of it: of those that take picks, see #picked.
      #
      # @param rgb [Numo::SFloat] [3, n], log codes of the picture that it is taken from
      # @param act [String] one of PICKS
      # @param space [Colour::WorkingSpace]
      # @return [Hash{String => Object}] parameters
      # @raise [ParameterError]
      def after_pick(rgb, act, space)
        raise ParameterError.new(path: "kind", expected: "a key, which takes picks", found: self.class.id) unless self.class.picks?
        raise ParameterError.new(path: "act", expected: PICKS.join(", "), found: act) unless PICKS.include?(act)

        act = "fresh" if act == "more" && values.except(:taken, :calm).all? { |name, value| value == self.class.parameters[name].neutral_value }
        found = picked(Axes.new(Array.new(3) { |channel| rgb[channel, true].dup }, space), act)
        values.merge(found).transform_keys(&:to_s).then { |all| self.class.new(all).values.transform_keys(&:to_s) }
      end
    end
  end
end
