# frozen_string_literal: true

module Mordant
  module Steps
    # Five tonal zones, each with exposure, colour and saturation of its own.
    #
    # A pixel's tone is its luminance in stops about mid grey. Four limits part the
    # zones; about each the next zone comes in over a width of +softness+ stops along
    # 3u^2 - 2u^3, so that the weights of all zones add up to 1 everywhere. Light is
    # multiplied channel by channel by 2 to the weighted sum of the zones' stops
    # (exposure; temperature and tint as in Balance, 0.02 stops a point), and stands off
    # its luminance by the weighted sum of their saturations.
    class Zones < Step
      NAMES = %i[blacks shadows middle lights whites].freeze
      LIMITS = %i[first second third fourth].freeze
      # Places the limits start from, stops.
      APART = [-5.0, -2.0, 1.0, 3.0].freeze
      # Stops about mid grey that an interface draws them over.
      SHOWN = (-9.0..7.0)
      # Limits keep at least this distance, stops.
      LEAST = 0.1
      FLOOR = 2.0**-24 # light whose tone is the lowest

      named :zones, "Zones"
      regions NAMES
      domain :linear

      parameter :exposure, label: "exposure", unit: :stops, range: -6.0..6.0, neutral: 0.0, channels: NAMES, about: "Light of each zone."
      parameter :temperature, label: "temperature", unit: :points, range: -200.0..200.0, neutral: 0.0, channels: NAMES, about: "Red against blue in each zone."
      parameter :tint, label: "tint", unit: :points, range: -200.0..200.0, neutral: 0.0, channels: NAMES, about: "Green against magenta in each zone."
      parameter :saturation, label: "saturation", unit: :ratio, range: 0.0..4.0, neutral: 1.0, channels: NAMES, about: "Distance from grey in each zone."
      parameter :limits, label: "limits", unit: :stops, range: -8.0..8.0, neutral: 0.0, channels: LIMITS,
        about: "How far each limit is moved from its place: -5, -2, +1 and +3 stops about mid grey."
      parameter :softness, label: "softness", unit: :stops, range: 0.1..6.0, neutral: 1.5, about: "Width over which one zone becomes the next."

      IDLE = %i[limits softness].freeze

      def neutral? = @values.all? { |name, value| IDLE.include?(name) || value == self.class.parameters[name].neutral_value }

      # @return [Array<Float>] stops about mid grey
      def places = APART.zip(limits).map(&:sum)

      def agree(path)
        low, high = places.each_cons(2).find { |a, b| b - a < LEAST }
        raise ParameterError.new(path: "#{path}.limits", expected: "limits in their order, #{LEAST} stops apart or more", found: [low, high]) if low
      end

      def operations(space)
        return [] if neutral?

        weights = space.luminance_weights
        curves = [*gains, method(:saturation_at)].map { |function| Pointwise::FloatTable.new(function) }
        [Pointwise::Formula.new(recordable: true) { |planes| zoned(planes, weights, curves) }]
      end

      # @param name [Symbol] of NAMES
      # @param planes [Array<Numo::SFloat>] linear light
      # @return [Numo::SFloat] [n], 0..1
      def region_weights(name, planes, space)
        weights_at(Numo::SFloat.cast(mixed(planes, space.luminance_weights))).fetch(NAMES.index(name))
      end

      # The weights of the zones along the tone axis, and where the limits stand, in stops.
      def shapes(count:)
        stops = Numo::DFloat.new(count).seq / (count - 1) * (SHOWN.end - SHOWN.begin) + SHOWN.begin
        NAMES.zip(weights_at(Numo::NMath.exp(stops * Math.log(2)) * Colour::WorkingSpace::MID_GREY).map(&:to_a)).to_h.merge(stops: stops.to_a, places:)
      end

      # @param light [Numo::NArray] luminance
      # @return [Array<Numo::NArray>] the weight of each zone, adding up to 1
      def weights_at(light)
        stops = Numo::NMath.log2(light.clip(FLOOR, nil) / Colour::WorkingSpace::MID_GREY)
        entered = [stops * 0.0 + 1.0, *places.map { |limit| step(stops, limit) }, stops * 0.0]
        entered.each_cons(2).map { |here, beyond| here - beyond }
      end

      private

      def step(stops, limit) = Colour::Piecewise.joined((stops - limit) / softness + 0.5)

      # Of red, green and blue: what light is multiplied by, from the luminance.
      def gains
        red_blue, green = [temperature, tint].map { |row| row.map { |points| points * Balance::STOPS_A_POINT } }
        rows = NAMES.each_index.map { |i| [red_blue[i] / 2 - green[i] / 3, green[i] * 2 / 3, -red_blue[i] / 2 - green[i] / 3].map { |stops| stops + exposure[i] } }
        rows.transpose.map do |row|
          ->(light) { Colour::Piecewise.exp2(weights_at(light).zip(row).map { |weight, stops| weight * stops }.reduce(:+)) }
        end
      end

      def saturation_at(light) = weights_at(light).zip(saturation).map { |weight, amount| weight * amount }.reduce(:+)

      def zoned(planes, weights, curves)
        luminance = mixed(planes, weights)
        *gains, amount = curves.map { |curve| curve.over(luminance) }
        lit = planes.zip(gains).map { |plane, gain| plane * gain }
        return lit if saturation.all?(1.0)

        grey = mixed(lit, weights)
        lit.map { |plane| grey + (plane - grey) * amount }
      end

      def mixed(planes, weights) = planes.zip(weights).map { |plane, weight| plane * weight }.reduce(:+)
    end
  end
end
