# frozen_string_literal: true

module Mordant
  module Steps
    # Light that a lens scatters: a share of all of it falls wide around where it belongs.
    #
    #   out = l + amount (K * l - l),   K = 0.5 G(size) + 0.3 G(3 size) + 0.2 G(9 size)
    #
    # in linear light; G are Gaussians. Nothing is won or lost.
    #
    # Source: the sum of wide falls approximates the spread of veiling glare with angle (ISO 9358 describes glare).
    class Bloom < Step
      FALLS = {1.0 => 0.5, 3.0 => 0.3, 9.0 => 0.2}.freeze # times the size => share

      named :bloom, "Bloom"
      circuit :film
      domain :linear
      reach :area
      scales :amount

      parameter :amount, label: "amount", unit: :share, range: 0.0..1.0, neutral: 0.0, about: "How much of the light is scattered."
      parameter :size, label: "size", unit: :share, range: 0.001..0.05, neutral: 0.006, about: "Of the narrowest fall, as a share of the picture's height; the widest is nine times as wide."

      # Nothing but the amount changes a picture.
      def neutral? = amount.zero?

      def detail = size

      def margin(raster) = Area::Spread.margin(FALLS.keys.map { |times| times * size }, raster.height)

      def process(_space)
        spreads = Hash.new { |known, height| known[height] = Area::Spread.new(FALLS.transform_keys { |times| times * size }, height) }
        ->(rgb, moment) { scattered(rgb, moment, spreads[moment.height]) }
      end

      private

      def scattered(rgb, moment, spread)
        out = Numo::SFloat.new(*rgb.shape).allocate
        spread.add(Pointwise.rows(rgb).zip(Pointwise.rows(out)).map { |plane, into| Area::Spread::Channel.new(plane, -> { plane }, amount, into) }, moment.window)
        out
      end
    end
  end
end
