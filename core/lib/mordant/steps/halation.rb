# frozen_string_literal: true

module Mordant
  module Steps
    # Light that goes through a negative, and comes back from its base beside where it went in, to the red layer first.
    #
    #   e_c   = l_c f(log2(Y / 0.18))                     f: 0 a stop below from, 1 a stop above it, 3u^2 - 2u^3 between
    #   out_c = l_c + amount colour_c (K * e_c - e_c)      K = (G(size) - ring / 4 G(size / 2)) / (1 - ring / 4)
    #
    # in linear light l with luminance Y; G are Gaussians. With a ring of 1 nothing comes back in the middle: it falls off from a ring
    # about the light. Nothing is won or lost.
    #
    # Source: C. E. K. Mees and T. H. James, The theory of the photographic process, on halation.
    class Halation < Step
      CHANNELS = %i[red green blue].freeze
      QUARTER = 0.25 # of the half as wide Gaussian, which leaves nothing in the middle

      named :halation, "Halation"
      circuit :film
      domain :linear
      reach :area
      scales :amount

      parameter :amount, label: "amount", unit: :share, range: 0.0..1.0, neutral: 0.0, about: "How much of the light that goes through comes back."
      parameter :from, label: "from", unit: :stops, range: -2.0..10.0, neutral: 3.0, about: "Light from which on it happens, stops above mid grey."
      parameter :size, label: "size", unit: :share, range: 0.001..0.1, neutral: 0.008, about: "Of the fall-off, as a share of the picture's height."
      parameter :ring, label: "ring", unit: :share, range: 0.0..1.0, neutral: 0.6, about: "How much less comes back in the middle than around it."
      parameter :colour, label: "colour", unit: :share, range: 0.0..1.0, neutral: 1.0, channels: CHANNELS, about: "How much of each channel comes back; red first, as it lies deepest."

      # Nothing but the amount changes a picture.
      def neutral? = amount.zero? || colour.all?(&:zero?)

      def detail = size

      def margin(raster) = Area::Spread.margin([size, size / 2], raster.height)

      def process(space)
        weights, table = space.luminance_weights, Pointwise::FloatTable.new(method(:bright))
        share = Pointwise::Sweep.new(3) { |*light| [table.call(light.zip(weights).map { |plane, weight| plane * weight }.reduce(:+))] }
        spreads = Hash.new { |known, height| known[height] = Area::Spread.new({size => 1 / (1 - ring * QUARTER), size / 2 => -ring * QUARTER / (1 - ring * QUARTER)}, height) }
        ->(rgb, moment) { returned(rgb, moment, share, spreads[moment.height]) }
      end

      private

      def returned(rgb, moment, share, spread)
        through = share.call(*Pointwise.rows(rgb)).first
        out = Numo::SFloat.new(*rgb.shape).allocate
        channels = Pointwise.rows(rgb).zip(Pointwise.rows(out), colour).filter_map do |plane, into, part|
          part.zero? ? into.store(plane) && nil : Area::Spread::Channel.new(plane, -> { PART.call(plane, through).first }, amount * part, into)
        end
        spread.add(channels, moment.window)
        out.tap { through.free }
      end

      PART = Pointwise::Sweep.new(2) { |light, share| [light * share] }
      private_constant :PART

      def bright(light)
        stops = Numo::NMath.log2(light.clip(Zones::FLOOR, nil) / Colour::WorkingSpace::MID_GREY)
        Colour::Piecewise.joined((stops - from + 1) * 0.5)
      end
    end
  end
end
