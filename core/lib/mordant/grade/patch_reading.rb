# frozen_string_literal: true

module Mordant
  module Grade
    # Where a patch of the picture stands on the axes of curves, before a step: the
    # medians of its pixels.
    class PatchReading
      # @return [Float] place on the tone axis, 0..1 of the hue circle, code difference
      attr_reader :tone, :hue, :saturation
      # @return [Array<Float>] red, green and blue on the tone axis
      attr_reader :tones

      # Saturation, in code, below which a patch has no hue to speak of.
      LEAST = 0.01

      # @param codes [Media::Codes] the patch, as decoded
      # @param before [Plan] of the steps before the one that is asked for
      def initialize(codes, before:)
        log = Numo::DFloat.cast(before.run(codes).rgb)
        colour = Array.new(3) { |channel| Numo::DFloat[log[channel, true].dup.median] }
        places = Steps::Curves::Places.new(colour, before.space)
        @tones = colour.map { |plane| places.tone(plane)[0] }
        @tone, @hue, @saturation = [places.tone(places.luma), places.hue, places.saturation].map { |place| place[0] }
        freeze
      end

      # @return [Boolean] it is grey: no hue can be told
      def grey? = saturation < LEAST

      def to_h = {tone: tone.round(4), tones: tones.map { |x| x.round(4) }, hue: hue.round(4), saturation: saturation.round(4), grey: grey?}
    end
  end
end
