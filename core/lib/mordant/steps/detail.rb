# frozen_string_literal: true

module Mordant
  module Steps
    # Detail of four sizes, each raised or taken away, of luma alone or of colour too; see Area::Detail. Each size is SPREAD times as large as
    # the one before it.
    class Detail < Step
      SIZES = %i[fine small middle large].freeze
      SPREAD = 2.4

      named :detail, "Detail"
      domain :log
      reach :area
      scales :amounts

      parameter :amounts, label: "amounts", unit: :ratio, range: -1.0..2.0, neutral: 0.0, channels: SIZES, about: "How much of each size is added once more; below 0 it goes, at -1 all of it."
      parameter :size, label: "finest", unit: :share, range: 0.0005..0.01, neutral: 0.0012, about: "Of the fine detail, as a share of the picture's height; each next one is 2.4 times as large."
      parameter :colour, label: "colour", unit: :share, range: 0.0..1.0, neutral: 0.0, about: "How much of it is done to colour too; 0: luma alone."
      parameter :threshold, label: "threshold", unit: :tone, range: 0.0..0.1, neutral: 0.0, about: "Detail below it is not raised, detail above it not taken away: noise below, edges above."
      parameter :halo, label: "halos", unit: :share, range: 0.0..1.0, neutral: 0.3, about: "How far raised detail may go beyond the least and the greatest about it; 0: not at all."

      # Nothing but the amounts changes a picture.
      def neutral? = amounts.all?(&:zero?)

      def detail = size

      def process(space) = made(space.luminance_weights)

      def margin(raster) = made(nil).margin(raster)

      private

      # As far as the last size that is changed.
      def made(weights)
        count = amounts.rindex { |amount| !amount.zero? }.to_i + 1
        Area::Detail.new(sizes: Array.new(count) { |at| size * SPREAD**at }, luma: amounts.first(count), colour: amounts.first(count).map { |amount| amount * colour }, weights:, threshold:, halo:)
      end
    end
  end
end
