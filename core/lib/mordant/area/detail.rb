# frozen_string_literal: true

module Mordant
  module Area
    # How much of a picture's detail is kept, of sizes that follow each other: luma and the differences from it apart.
    #
    #   y    = w . c                                      luma, with the working space's weights
    #   e_j  = t(G_(j-1) y - G_j y)                       G_j: Gaussians of rising size, G_0 leaves y as it is
    #   y'   = held(y + sum(luma_j e_j))
    #   d'   = d + sum(colour_j (G_(j-1) d - G_j d))      d = c - y
    #
    # t leaves detail below a threshold as it is, or where detail is taken away, detail above it: it goes over along 3u^2 - 2u^3 from the
    # threshold to twice it. Held between the least and the greatest luma about a pixel, but for a share of what goes beyond, which is a halo.
    class Detail
      # @param sizes [Array<Float>] standard deviations of the Gaussians as shares of the picture's height, rising
      # @param luma [Array<Float>] of each: -1.0 takes the detail away, 0.0 leaves it, 1.0 doubles it
      # @param colour [Array<Float>] the same of the differences from luma
      # @param weights [Array<Float>] of luma
      # @param threshold [Float] of detail, in log codes; 0.0: none
      # @param halo [Float] 0.0..1.0: how much of what goes beyond the neighbourhood is kept
      def initialize(sizes:, luma:, colour:, weights:, threshold: 0.0, halo: 1.0)
        @sizes, @luma, @colour, @weights, @threshold, @halo = sizes, luma, colour, weights, threshold, halo
        freeze
      end

      # @param raster [#height]
      # @return [Integer] pixels
      def margin(raster) = @sizes.map { |size| gaussian(size, raster).margin }.max + ((@halo < 1.0) ? radius(raster) : 0)

      # @param rgb [Numo::SFloat] [3, n] of the moment's window; never written to
      # @param moment [Grade::Moment]
      # @return [Numo::SFloat] [3, n]
      def call(rgb, moment)
        y = total((0..2).map { |channel| rgb[channel, true] * @weights[channel] })
        details = parts(y, moment)
        added = total(details.zip(@luma).map { |detail, gain| kept(detail, gain) * gain })
        added = within(y, added, moment) if @halo < 1.0
        out = Numo::SFloat.new(*rgb.shape).allocate
        3.times do |channel|
          plane = rgb[channel, true].dup
          changed = coloured(plane, details, moment)
          out[channel, true] = ((plane.inplace + added) + changed).out_of_place!
          [plane, (changed unless changed.is_a?(Float))].compact.each(&:free)
        end
        [y, *details, added].each(&:free) # which are large
        out
      end

      private

      # @param planes [Array<Numo::SFloat>] used up
      def total(planes) = planes.reduce { |sum, one| (sum.inplace + one).out_of_place!.tap { one.free } }

      def gaussian(size, raster) = Gaussian.new(size * raster.height)

      # From fine to coarse, what each Gaussian takes of what the one before left.
      def parts(plane, moment)
        held = plane
        made = @sizes.map do |size|
          smooth = gaussian(size, moment).call(held, moment.window)
          (held - smooth).tap do
            held.free unless held.equal?(plane)
            held = smooth
          end
        end
        made.tap { held.free }
      end

      def kept(detail, gain)
        return detail if @threshold.zero?

        share = Colour::Piecewise.joined((detail.abs - @threshold) * (1.0 / @threshold))
        detail * (gain.negative? ? share * -1.0 + 1.0 : share)
      end

      def coloured(plane, details, moment)
        return 0.0 if @colour.all?(&:zero?)

        total(parts(plane, moment).zip(details, @colour).map { |own, light, gain| (own - light) * gain })
      end

      def radius(raster) = (@sizes.min * raster.height).ceil.clamp(1, MOST_RADIUS)
      MOST_RADIUS = 12 # pixels

      # Not beyond the least and the greatest about each pixel, but for the halo that is wanted.
      def within(y, added, moment)
        rows = Pointwise.shaped(y, moment.window.height, moment.window.width)
        about = Greatest.new(radius(moment))
        high, low = *[about.call(rows), about.call(rows * -1.0) * -1.0].map { |plane| Pointwise.shaped(plane, y.size) }
        made = y + added
        held = Numo::SFloat.minimum(Numo::SFloat.maximum(made, low), high)
        held + (made - held) * @halo - y
      end
    end
  end
end
