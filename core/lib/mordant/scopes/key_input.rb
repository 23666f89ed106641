# frozen_string_literal: true

module Mordant
  module Scopes
    # What a key sees, on the axes that it counts in, and how much of that it takes: how often each place of
    # the plane of hue and chroma, each chroma and each lightness occurs, and the mean of its weights there.
    class KeyInput
      CELLS = 48 # of the plane, either way
      REACHES = [0.12, 0.2, 0.3, 0.45, 0.7].freeze # codes that the plane shows either way: the least that holds nearly all
      NEARLY = 0.999
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
        sorted = @axes.chroma.sort
        far = sorted[((sorted.size - 1) * NEARLY).round]
        reach = REACHES.find { |one| one >= far } || REACHES.last
        across, down = [@axes.x, @axes.y].map { |plane| bins(plane, -reach, reach, CELLS) }
        {cells: CELLS, reach:, lightness_range: [LIGHTNESS.begin, LIGHTNESS.end], plane: told(down * CELLS + across, CELLS * CELLS),
         chroma: told(bins(@axes.chroma, 0.0, reach, BINS), BINS), lightness: told(bins(@axes.lightness, LIGHTNESS.begin, LIGHTNESS.end, BINS), BINS)}
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
