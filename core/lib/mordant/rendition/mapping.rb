# frozen_string_literal: true

module Mordant
  module Rendition
    # How the HDR picture of a shot is brought to a target at a frame: by its levels and its corrections. Immutable; what is equal by #to_h makes
    # the same pictures.
    class Mapping
      attr_reader :levels, :all, :one

      # @param levels [Levels]
      # @param all [ForAll]
      # @param one [ForTarget]
      def initialize(levels:, all: ForAll.neutral, one: ForTarget.neutral)
        @levels, @all, @one = levels, all, one
        freeze
      end

      # @param aim [Aim]
      # @param gamut [String] a key of Colour::GamutLimit::ALL
      # @return [Array] Pointwise operations from light of BT.2020 to that of the gamut, 1.0 at 100 cd/m2; none but a matrix where the picture fits
      def operations(aim, gamut)
        tones = tones(aim)
        changes = changes(tones)
        primaries = Colour::GamutLimit::ALL.fetch(gamut)
        reach = reach(gamut)
        [*changes, Pointwise::Matrix.new(Colour::Primaries::REC2020.to(primaries)), *(Where.peak(primaries, aim.peak * ICtCp::NITS) if changes.any?),
          *(Where.gamut(reach) if reach.any? { |one| one > WithinGamut::EDGE })]
      end

      # @param aim [Aim]
      # @return [Tones]
      def tones(aim) = Tones.new(levels:, aim:, all:, one:)

      # @return [Boolean] a pixel depends on those around it
      def area? = one.detail.positive?

      # @return [Boolean] what lies outside the active picture is left as it is
      def barred? = !levels.active.nil?

      def to_h = {levels: levels.to_h, all: all.values, one: one.values}

      def to_json(*arguments) = to_h.to_json(*arguments)

      def ==(other) = other.is_a?(Mapping) && to_h == other.to_h
      alias_method :eql?, :==

      def hash = to_h.hash

      # @param tones [Tones]
      # @return [Array] Pointwise operations of light of BT.2020; none where nothing is changed
      def changes(tones)
        sectors = Sectors.new(one.hue, one.amount) unless (one.hue + one.amount).all?(&:zero?)
        return [] if tones.neutral? && tones.colour_neutral? && sectors.nil?

        [*ICtCp::THERE, Toning.new(tones, sectors), *ICtCp::BACK]
      end

      private

      # Of what was measured, unless corrections lead beyond that.
      def reach(gamut)
        measured = levels.reach && levels.reach[gamut]
        (measured && !one.louder?) ? measured : Colour::GamutLimit.reach(Colour::GamutLimit::ALL.fetch(gamut), widest: Colour::Primaries::REC2020)
      end
    end
  end
end
