# frozen_string_literal: true

module Mordant
  module Scopes
    # What a key sees, on the axes that it counts in, and how much of that it takes: how often each place of
    # the plane of hue and chroma, each chroma and each lightness occurs, and the mean of its weights there.
    class KeyInput
      CELLS = 48 # of the plane, either way
      REACH = 0.4 # codes that the plane shows either way; what lies beyond is at its rim
      CHROMA = 0.5 # codes that bins of chroma reach to
      LIGHTNESS = -0.1..1.3 # and of lightness
      BINS = 96

      # @param rgb [Numo::SFloat] [3, n] log codes of the working space
      # @param weights [Numo::SFloat] [n]
      # @param space [Colour::WorkingSpace]
      def initialize(rgb, weights, space:)
        @axes = Matte::Axes.new(Array.new(3) { |channel| rgb[channel, true].dup }, space)
        @weights = Numo::DFloat.cast(weights)
      end

      # @return [Hash{Symbol => Object}] of each: counts as shares of the fullest, and weights, 0..1
      def to_h
        across, down = [@axes.x, @axes.y].map { |plane| bins(plane, -REACH, REACH, CELLS) }
        {cells: CELLS, reach: REACH, chroma_reach: CHROMA, lightness_range: [LIGHTNESS.begin, LIGHTNESS.end], plane: told(down * CELLS + across, CELLS * CELLS),
         chroma: told(bins(@axes.chroma, 0.0, CHROMA, BINS), BINS), lightness: told(bins(@axes.lightness, LIGHTNESS.begin, LIGHTNESS.end, BINS), BINS)}
      end

      private

      def bins(values, low, high, count) = Numo::Int32.cast(((values - low) * (count / (high - low))).clip(0, count - 1))

      def told(bins, count)
        found, taken = Numo::DFloat.cast(bins.bincount(minlength: count)), bins.bincount(@weights, minlength: count)
        fullest = [found.max, 1.0].max
        {counts: (found / fullest).to_a.map { |one| one.round(4) }, weights: (taken / found.clip(1.0, nil)).to_a.map { |one| one.round(3) }}
      end
    end
  end
end
