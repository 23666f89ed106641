# frozen_string_literal: true

module Mordant
  module Steps
    # Density noise of a material's grain, of each layer by itself and of all together.
    #
    #   l_c = l_c 10^(-n_c) / v     n_c = s a(Y) (sqrt(1 - colour) g_0 + sqrt(colour) g_c)
    #
    # in linear light l, with g noise of variance 1, another in each frame, a the amounts of the zones of luminance (see Dyes) and v
    # what keeps the light's mean. By Selwyn's law the spread of density times the root of the area it is measured over is the
    # same for every area: from the RMS granularity G (times 1000, through an aperture of 48 um) a square pixel of p um has
    #
    #   s = amount G / 1000 sqrt(pi) 24 um / p * (erf(p / d) - d / (p sqrt(pi)) (1 - e^(-(p / d)^2)))
    #
    # with p from the gauge's width and the raster, so that grain looks alike at every raster. The last factor, V(p / d), is what the
    # pixel's square leaves of noise with particles of size d, a Gaussian of half of it. Neighbours are alike by V(2 p / d) / V(p / d) - 1, and g
    # is blurred so that they are.
    #
    # Sources: E. W. H. Selwyn, A theory of graininess, Photogr. J. 75 (1935); ISO 10505 for RMS granularity; the factor is
    # the mean of a Gaussian autocorrelation over a square.
    class Grain < Step
      ZONES = Dyes::ZONES
      GAUGES = {"8 mm" => 5.8, "16 mm" => 12.4, "35 mm" => 24.9, "65 mm" => 52.6}.freeze # mm of picture across
      APERTURE = 24.0 # um, its radius
      PROBE = 65 # pixels of a picture by which a blur is weighed

      named :grain, "Grain"
      regions ZONES
      circuit :film
      domain :linear
      reach :area
      scales :amount

      parameter :amount, label: "amount", unit: :ratio, range: 0.0..4.0, neutral: 0.0, about: "1 is what the granularity says; 0 is none at all."
      parameter :granularity, label: "granularity", unit: :ratio, range: 0.5..40.0, neutral: 4.6, about: "RMS granularity at a density of 1 through 48 um, times 1000; materials state theirs."
      parameter :particles, label: "particles", unit: :ratio, range: 1.0..60.0, neutral: 9.0, about: "Their size in um."
      parameter :colour, label: "colour", unit: :share, range: 0.0..1.0, neutral: 0.5, about: "How much of it differs from layer to layer; 0 is neutral grain."
      text :gauge, label: "gauge", from: GAUGES.keys, neutral: "35 mm", about: "How wide the picture is on the film."
      parameter :zones, label: "zones", unit: :ratio, range: 0.0..2.0, neutral: 1.0, channels: ZONES, about: "How much of it in shadows, middle and lights."

      # Nothing but the amounts changes a picture.
      def neutral? = amount.zero? || zones.all?(&:zero?)

      # @return [Boolean] it is another in each frame, and not bound to one
      def moving? = !neutral? && @seed.nil?

      # @return [Grain] as it is there: by the source's frame, or its owner's where nothing is known of that
      def at(frame, seed = nil) = dup.tap { |one| one.instance_variable_set(:@seed, seed || [0, frame]) }

      def stamps = neutral? ? [] : [@seed].compact

      def margin(raster) = blur(raster).margin

      # @param raster [#width]
      # @return [Float] spread of density of its pixels
      def spread(raster)
        amount * granularity / 1000 * Math.sqrt(Math::PI) * APERTURE / pixel(raster) * left(pixel(raster) / particles)
      end

      def process(space)
        weights = space.luminance_weights
        table = Pointwise::FloatTable.new(method(:amounts))
        sweeps = {} # by width, which is all that they go by
        ->(rgb, moment) { grained(rgb, moment, sweeps[moment.width] ||= added(1 / Math.sqrt(energy(blur(moment), moment)), spread(moment) * Math.log(10), weights, table)) }
      end

      # @return [Numo::SFloat] [n], 0..1
      def region_weights(name, planes, space) = Dyes.neutral.region_weights(name, planes, space)

      def noisy? = true

      def unit(space, raster)
        weights, table = space.luminance_weights, Pointwise::FloatTable.new(method(:amounts))
        change = Math.log(10) * spread(raster)
        darker = Pointwise::Formula.new do |planes|
          gain = Numo::NMath.exp(table.call(Numo::SFloat.cast(planes.zip(weights).map { |plane, weight| plane * weight }.reduce(:+))) * -change)
          planes.map { |plane| plane * gain }
        end
        [[space.log, space.linear], [space.linear, space.log]].map { |from, to| Colour::Conversion.new(from:, to:).operations }.then { |open, close| [*open, darker, *close] }
      end

      def tile(raster, edge)
        filter = blur(raster)
        parts = [1 - colour, colour].map { |part| Math.sqrt(part / energy(filter, raster)) }
        common, *own = (0..3).map { |layer| wound(filter, layer, edge) }
        Numo::NArray.vstack(own.map { |one| common * parts[0] + one * parts[1] })
      end

      def tile_key(raster) = [particles, gauge, colour, raster.width]

      def laid(edge) = [0, 1].map { |way| Film::Speckle.seed("laid", *@seed, way) % edge }

      private

      # Noise that goes on at one edge as it begins at the other.
      def wound(filter, layer, edge)
        around = filter.margin
        noise = Film::Speckle.normal(Grade::Window.whole(edge, edge), Film::Speckle.seed("tile", layer)).reshape(edge, edge)
        places = (-around...(edge + around)).map { |at| at % edge }
        wide = edge + 2 * around
        filter.call(noise[places, places].dup.reshape(wide * wide), Grade::Window.whole(wide, wide)).reshape(wide, wide)[around...(around + edge), around...(around + edge)].dup.reshape(edge * edge)
      end

      def pixel(raster) = GAUGES.fetch(gauge) * 1000 / raster.width

      # Of the spread, by pixels of so many particles' sizes.
      def left(size) = Math.erf(size) - (1 - Math.exp(-size * size)) / (size * Math.sqrt(Math::PI))

      # That makes neighbours of white noise as alike as they have to be: three taps where that is little, else a Gaussian.
      def blur(raster)
        size = pixel(raster) / particles
        alike = left(2 * size) / left(size) - 1
        return Area::Taps.new([1.0, (1 - Math.sqrt(1 - 2 * alike**2)) / (2 * alike)]) if alike < LITTLE

        sigma = 0.5 / Math.sqrt(-Math.log(alike))
        (sigma < NARROW) ? Area::Taps.gaussian(sigma) : Area::Gaussian.new(sigma)
      end
      LITTLE = 0.6
      NARROW = 1.5 # pixels

      def amounts(light) = Dyes.neutral.zones(light).zip(zones).map { |weight, value| weight * value }.reduce(:+)

      # Of the noise that all channels have, and of that of each.
      def shares = [1 - colour, *[colour] * 3]

      # @param scale [Float] of noise to a deviation of 1
      # @param density [Float] its deviation where there is most, in natural logarithms
      # @return [Pointwise::Sweep] from light and layers of noise to what becomes of it
      def added(scale, density, weights, table)
        Pointwise::Sweep.new(3 + shares.count(&:positive?)) do |*planes|
          light = planes.shift(3)
          common, *own = shares.map { |share| planes.shift * (Math.sqrt(share) * scale) if share.positive? }
          spread = table.call(light.zip(weights).map { |plane, weight| plane * weight }.reduce(:+)) * density
          light.zip(own).map { |plane, one| plane * power([common, one].compact.reduce(:+) * spread * -1.0 - spread * spread * 0.5) }
        end
      end

      def grained(rgb, moment, sweep)
        filter = blur(moment)
        layers = shares.each_index.filter_map { |layer| noise(moment, filter, layer) if shares[layer].positive? }
        sweep.picture(rgb, *layers).tap { layers.each { |layer| layer.free if MADE.own?(layer) } }
      end

      # e to the power of a plane, by that of an eighth of it; what is left of light is no less than e^-8.
      def power(plane) = EXPONENTIAL.call((plane * 0.125).clip(-1.0, 3.0)).then { |root| 3.times.reduce(root) { |made, _| made * made } }
      EXPONENTIAL = Pointwise::UniformTable.new(->(root) { Numo::NMath.exp(root) })
      private_constant :EXPONENTIAL

      # How much of white noise's variance a blur leaves.
      def energy(filter, raster)
        kernel = MADE.fetch([:spot, *likeness(raster)]) do
          spot = Numo::SFloat.zeros(PROBE**2)
          spot[PROBE**2 / 2] = 1.0
          filter.call(spot, Grade::Window.whole(PROBE, PROBE))
        end
        Numo::DFloat.cast(kernel).then { |numbers| (numbers * numbers).sum }
      end

      def noise(moment, filter, layer)
        MADE.fetch([@seed, layer, *likeness(moment), moment.window]) do
          white = Film::Speckle.normal(moment.window, Film::Speckle.seed("grain", *@seed, layer))
          filter.call(white, moment.window).tap { white.free }
        end
      end
      MADE = Pointwise::Lately.new(16) # the layers of a whole picture, of parts of it, and of a small one
      private_constant :MADE

      # What the blur goes by.
      def likeness(raster) = [particles, gauge, raster.width]
    end
  end
end
