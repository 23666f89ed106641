# frozen_string_literal: true

module Mordant
  module Scopes
    # What a step sees, by the places its curves run across: how often each tone of each
    # channel, each hue and each saturation occurs. Hues of weak colours count less, as
    # they do in Steps::Curves.
    class StepInput
      BINS = 96

      # @param frame [Frame] log codes of the working space
      def initialize(frame, space:)
        @planes = Array.new(3) { |channel| frame.rgb[channel, true].dup }
        @places = Steps::Curves::Places.new(@planes, space)
      end

      # @return [Hash{Symbol => Array<Float>}] [BINS] of each place, as shares of the fullest
      def to_h
        tones = @planes.map { |plane| counts(@places.tone(plane)) }
        {luma: share(tones.reduce(:+)), **%i[red green blue].zip(tones.map { |tone| share(tone) }).to_h,
         hue: share(counts(@places.hue, weights: @places.presence)), saturation: share(counts(@places.saturation)), tone: share(counts(@places.tone(@places.luma)))}
      end

      private

      def counts(place, weights: nil)
        bins = Numo::Int32.cast((place * BINS).clip(0, BINS - 1)).clip(0, BINS - 1)
        weights ? bins.bincount(Numo::DFloat.cast(weights), minlength: BINS) : Numo::DFloat.cast(bins.bincount(minlength: BINS))
      end

      def share(counts)
        fullest = counts.max
        fullest.positive? ? (counts / fullest).to_a.map { |x| x.round(4) } : counts.to_a
      end
    end
  end
end
