# frozen_string_literal: true

module Mordant
  module Steps
    # Mends tones that break, within the step that they break by: what it makes is never further than that from what was there.
    #
    #   c' = c + amount w clamp(G c - c, -step, step)      w: 1 where c varies about a pixel by up to SMOOTH steps, 0 from twice that on
    #
    # of each channel, in log codes; G is a Gaussian.
    class SmoothBanding < Step
      SMOOTH = 8.0 # steps

      named :smooth_banding, "Smooth banding"
      domain :log
      reach :area

      parameter :amount, label: "amount", unit: :share, range: 0.0..1.0, neutral: 0.0, about: "How much of a break is mended."
      parameter :step, label: "step", unit: :tone, range: 0.0005..0.05, neutral: 0.005, about: "By how much tones break at most; a code of 8 bits is about 0.4 %."
      parameter :size, label: "size", unit: :share, range: 0.002..0.1, neutral: 0.015, about: "Over what distance it is mended, as a share of the picture's height: somewhat more than from one break to the next."

      # Nothing but the amount changes a picture.
      def neutral? = amount.zero?

      def margin(raster) = radius(raster)

      def process(_space) = method(:mended)

      private

      # As far as the Gaussian reaches, so that nothing comes over from beyond an edge.
      def radius(raster) = Area::Gaussian.new(size * raster.height).margin

      def mended(rgb, moment)
        gaussian, about = Area::Gaussian.new(size * moment.height), Area::Greatest.new(radius(moment))
        out = rgb.dup
        3.times do |channel|
          plane = rgb[channel, true].dup
          rows = Pointwise.shaped(plane, moment.window.height, moment.window.width)
          sides = [about.call(rows), about.call(rows * -1.0)].map { |side| side.reshape!(plane.size) }
          out[channel, true] = Pointwise.swept(plane, gaussian.call(plane, moment.window), *sides) do |own, smooth, *both|
            own + (smooth - own).clip(-step, step) * Colour::Piecewise.joined(both.reduce(:+) * (-1.0 / (SMOOTH * step)) + 2.0) * amount
          end
        end
        out
      end
    end
  end
end
