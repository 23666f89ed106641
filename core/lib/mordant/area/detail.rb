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
        y = Pointwise.swept(*Pointwise.rows(rgb)) { |*channels| sum(channels, @weights) }
        details = parts(y, moment)
        added = Pointwise.swept(*details) { |*planes| sum(planes.zip(@luma).map { |detail, gain| kept(detail, gain) }, @luma) }
        added = within(y, added, moment) if @halo < 1.0
        y.free
        details.each(&:free).clear if @colour.all?(&:zero?)
        details.empty? ? LIGHTER.picture(rgb, added) : coloured(rgb, added, details, moment)
      ensure
        [added, *details].compact.each(&:free) # which are large
      end

      LESS = Pointwise::Sweep.new(2) { |plane, other| [plane - other] }
      LIGHTER = Pointwise::Sweep.new(4) { |*rgb, added| rgb.map { |plane| plane + added } }
      CHANGED = Pointwise::Sweep.new(3) { |plane, light, colour| [plane + light + colour] }
      private_constant :LESS, :LIGHTER, :CHANGED

      private

      def sum(planes, gains) = planes.zip(gains).map { |plane, gain| plane * gain }.reduce(:+)

      def gaussian(size, raster) = Gaussian.new(size * raster.height)

      # From fine to coarse, what each Gaussian takes of what the one before left.
      def parts(plane, moment) = [].tap { |made| levels(plane, moment) { |held, smooth| made << LESS.call(held, smooth).first } }

      # @yieldparam held [Numo::SFloat] what the Gaussian before left
      # @yieldparam smooth [Numo::SFloat] what one leaves of it
      # @yieldparam at [Integer] which one
      def levels(plane, moment)
        held = plane
        @sizes.each_with_index do |size, at|
          smooth = gaussian(size, moment).call(held, moment.window)
          yield held, smooth, at
          held.free unless held.equal?(plane)
          held = smooth
        end
        held.free
      end

      def kept(detail, gain)
        return detail if @threshold.zero?

        share = Colour::Piecewise.joined((detail.abs - @threshold) * (1.0 / @threshold))
        detail * (gain.negative? ? share * -1.0 + 1.0 : share)
      end

      def coloured(rgb, added, details, moment)
        out = Numo::SFloat.new(*rgb.shape).allocate
        Pointwise.rows(rgb).zip(Pointwise.rows(out)) do |plane, into|
          changed = nil
          levels(plane, moment) do |held, smooth, at|
            before = changed
            changed = Pointwise.swept(held, smooth, details[at], *[before].compact) { |one, less, light, sum| (one - less - light) * @colour[at] + (sum || 0.0) }
            before&.free
          end
          CHANGED.call(plane, added, changed, into: [into])
          changed.free
        end
        out
      end

      def radius(raster) = (@sizes.min * raster.height).ceil.clamp(1, MOST_RADIUS)
      MOST_RADIUS = 12 # pixels

      # Not beyond the least and the greatest about each pixel, but for the halo that is wanted.
      def within(y, added, moment)
        rows = Pointwise.shaped(y, moment.window.height, moment.window.width)
        about = Greatest.new(radius(moment))
        turned = rows * -1.0
        high, deep = [rows, turned].map { |plane| about.call(plane) }
        turned.free
        planes = [y, added, *[high, deep].map { |plane| Pointwise.shaped(plane, y.size) }]
        Pointwise.swept(*planes) do |light, more, most, least|
          made = light + more
          held = made.clip(least * -1.0, most)
          held + (made - held) * @halo - light
        end.tap { [added, high, deep].each(&:free) }
      end
    end
  end
end
