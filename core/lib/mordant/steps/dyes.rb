# frozen_string_literal: true

module Mordant
  module Steps
    # Subtractive correction: densities of cyan, magenta and yellow dye, overall and by zone, with the exposure of greys kept.
    #
    # In linear light l of channels c, with luminance Y (weights w) and its weights z of shadows, middle and lights, in this order:
    #
    #   toned       l_c = Y + (1 - sum(z t)) (l_c - Y)                  t: how much of its own colour a zone gives up
    #   saturation  l_c = m (l_c / m)^s                                 m = max(l): dyes grow from the lightest channel on, so that
    #                                                                   colours get denser, not lighter; greys stay
    #   depth       l_c = l_c 10^(-0.3 d f)                              f: 0 up to a strength of 0.35, 1 from 0.85 on, 3u^2 - 2u^3
    #                                                                   between; strength 1 - min(l) / max(l)
    #   densities   l_c = l_c 10^(-a_c) / sum(w 10^-a)                   a = 0.025 (overall + sum(z zone)) in points
    #
    # The last divisor gives back what the densities take from a grey, whatever its zone. Zones are parted by
    # luminance in stops about mid grey at two limits, over a width of softness, along 3u^2 - 2u^3.
    #
    # Sources: densities of subtractive dyes, their points of 0.025 as of printer lights; D = -log10 T (ISO 5-1).
    class Dyes < Step
      PAIRS = %i[cyan magenta yellow].freeze
      ZONES = %i[shadows middle lights].freeze
      ENDS = %i[dark bright].freeze
      APART = [-2.0, 2.0].freeze # stops that the limits start from
      LEAST = 0.1 # stops that they keep apart
      STRONG = (0.35..0.85) # strengths from which depth begins, and where it is whole
      DEPTH = 0.3 # density
      FLOOR = 2.0**-24

      named :dyes, "Dyes"
      regions ZONES
      circuit :film
      domain :linear

      parameter :overall, label: "all", unit: :points, range: -24.0..24.0, neutral: 0.0, channels: PAIRS, about: "Dye over the whole picture; below 0 red, green and blue."
      parameter :shadows, label: "shadows", unit: :points, range: -24.0..24.0, neutral: 0.0, channels: PAIRS, about: "Dye in the shadows."
      parameter :middle, label: "middle", unit: :points, range: -24.0..24.0, neutral: 0.0, channels: PAIRS, about: "Dye in the middle."
      parameter :lights, label: "lights", unit: :points, range: -24.0..24.0, neutral: 0.0, channels: PAIRS, about: "Dye in the lights."
      parameter :toned, label: "toned", unit: :share, range: 0.0..1.0, neutral: 0.0, channels: ZONES, about: "How much of its own colour each zone gives up for its dyes."
      parameter :depth, label: "depth", unit: :share, range: -1.0..1.0, neutral: 0.0, about: "Density of strong colours alone; below 0 they get lighter."
      parameter :saturation, label: "saturation", unit: :ratio, range: 0.0..3.0, neutral: 1.0, about: "Dye of colours; more makes them darker as it makes them stronger."
      parameter :limits, label: "limits", unit: :stops, range: -6.0..6.0, neutral: 0.0, channels: ENDS, about: "How far the limits of the middle are moved: from -2 and +2 stops about mid grey."
      parameter :softness, label: "softness", unit: :stops, range: 0.2..8.0, neutral: 2.5, about: "Width over which one zone becomes the next."

      IDLE = %i[limits softness].freeze

      def neutral? = @values.all? { |name, value| IDLE.include?(name) || value == self.class.parameters[name].neutral_value }

      # @return [Array<Float>] stops about mid grey
      def places = APART.zip(limits).map(&:sum)

      def agree(path)
        raise ParameterError.new(path: "#{path}.limits", expected: "a bright limit #{LEAST} stops or more above the dark one", found: places) if places[1] - places[0] < LEAST
      end

      def operations(space)
        return [] if neutral?

        weights = space.luminance_weights
        [Passage.new(weights, toned: toned_table, saturation:, depth: (method(:deepened) unless depth.zero?), gains: densities(weights))]
      end

      # @return [Numo::SFloat] [n], 0..1
      def region_weights(name, planes, space) = zones(Numo::SFloat.cast(luminance(planes, space.luminance_weights))).fetch(ZONES.index(name))

      # The weights of the zones along the tone axis, and where the limits stand, in stops.
      def shapes(count:)
        stops = Numo::DFloat.new(count).seq / (count - 1) * (Zones::SHOWN.end - Zones::SHOWN.begin) + Zones::SHOWN.begin
        ZONES.zip(zones(Numo::NMath.exp(stops * Math.log(2)) * Colour::WorkingSpace::MID_GREY).map(&:to_a)).to_h.merge(stops: stops.to_a, places:)
      end

      # @param light [Numo::NArray] luminance
      # @return [Array<Numo::NArray>] of shadows, middle and lights, adding up to 1
      def zones(light)
        stops = Numo::NMath.log2(light.clip(FLOOR, nil) / Colour::WorkingSpace::MID_GREY)
        dark, bright = places.map { |limit| Colour::Piecewise.joined((stops - limit) / softness + 0.5) }
        [dark * -1.0 + 1.0, dark - bright, bright]
      end

      private

      # Of luminance: how much of a pixel's own colour goes.
      def toned_table = (Pointwise::FloatTable.new(->(light) { by_zone(light, toned) }) if toned.any?(&:positive?))

      # Of luminance: what each channel is multiplied by; nil where nothing is.
      def densities(weights)
        rows = PAIRS.each_index.map { |pair| [overall, shadows, middle, lights].map { |row| row[pair] } }
        return if rows.flatten.all?(&:zero?)

        passed = rows.map { |all, *zone| ->(light) { Numo::NMath.exp((by_zone(light, zone) + all) * (-Film::POINT * Math.log(10))) } }
        kept = ->(light) { passed.zip(weights).map { |one, weight| one.call(light) * weight }.reduce(:+) }
        passed.map { |one| Pointwise::FloatTable.new(->(light) { one.call(light) / kept.call(light) }) }
      end

      def by_zone(light, values) = zones(light).zip(values).map { |weight, value| weight * value }.reduce(:+)

      def luminance(planes, weights) = planes.zip(weights).map { |plane, weight| plane * weight }.reduce(:+)

      # Of the least channel as a share of the greatest: what light is multiplied by.
      def deepened(share)
        strength = share.clip(0.0, 1.0) * -1.0 + 1.0
        Numo::NMath.exp(Colour::Piecewise.joined((strength - STRONG.begin) / (STRONG.end - STRONG.begin)) * (-DEPTH * depth * Math.log(10)))
      end
    end
  end
end
