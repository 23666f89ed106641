# frozen_string_literal: true

module Mordant
  module Steps
    # Takes the fall-off of a lens towards the edges back, for each channel:
    #
    #   l = l * 2 ^ (amount_c * (r / R) ^ shape)
    #
    # with r the distance from the centre and R that of the farthest corner from the
    # middle of the picture, so that a proxy looks as its master does. It stands
    # before the balance, which cannot align black and white otherwise.
    class LensShading < Step
      CHANNELS = %i[master red green blue].freeze

      named :lens_shading, "Lens shading"
      domain :linear
      reach :area

      parameter :amount, label: "amount", unit: :stops, range: -2.0..4.0, neutral: 0.0, channels: CHANNELS,
        about: "Light given back in the corners."
      parameter :shape, label: "shape", unit: :exponent, range: 1.0..8.0, neutral: 2.0,
        about: "How late the fall-off begins: 2 from the middle on, more towards the corners."
      parameter :centre, label: "centre", unit: :share, range: -0.5..0.5, neutral: 0.0, channels: %i[across down],
        about: "Where the lens was brightest, from the middle of the picture, as shares of its width and height."

      # Nothing but the amount changes a picture.
      def neutral? = amount.all?(&:zero?)

      def process(_space) = method(:shade)

      private

      def shade(rgb, moment)
        out = rgb.dup
        gains = gains_for(distance(moment))
        3.times { |channel| out[channel, true] = rgb[channel, true] * gains[channel] }
        out
      end

      # (r / R) ^ shape for every pixel of the window.
      def distance(moment)
        across, down = moment.places
        squares = (across - centre[0] * moment.width)**2 + (down - centre[1] * moment.height)**2
        share = squares.reshape(moment.window.size) / ((moment.width**2 + moment.height**2) / 4.0)
        Colour::Piecewise.power(share, shape / 2)
      end

      def gains_for(distances)
        stops = (1..3).map { |channel| amount[0] + amount[channel] }
        made = stops.uniq.to_h { |amount| [amount, Colour::Piecewise.exp2(distances * amount)] }
        stops.map { |amount| made.fetch(amount) }
      end
    end
  end
end
