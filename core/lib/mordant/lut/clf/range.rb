# frozen_string_literal: true

module Mordant
  module Lut
    class Clf
      # A straight line through two points, held to its ends unless it is told not to;
      # with one end alone, a limit there.
      class Range < Node
        STYLES = %w[Clamp noClamp].freeze
        NAMES = %w[minInValue maxInValue minOutValue maxOutValue].freeze

        def self.element = "Range"

        def self.parse(markup, in_scale:, out_scale:)
          found = NAMES.to_h { |name| [name, markup.child(name)&.numbers(1)&.first] }
          low, high = found.values_at("minInValue", "minOutValue"), found.values_at("maxInValue", "maxOutValue")
          uneven = [low, high].any? { |pair| pair.compact.one? } || (low + high).compact.empty?
          markup.fault("minInValue with minOutValue, maxInValue with maxOutValue, or all four", found.compact.keys.join(" ")) if uneven
          style = markup.choice("style", STYLES, "Clamp")
          markup.fault("all four values where nothing is clamped", found.compact.keys.join(" ")) if style == "noClamp" && (low + high).any?(&:nil?)
          scaled = [low, high].map { |from, to| from && [from / in_scale, to / out_scale] }
          check(markup, *scaled)
          new(low: scaled[0], high: scaled[1], clamp: style == "Clamp")
        end

        def self.check(markup, low, high)
          return unless low && high

          markup.fault("maxInValue above minInValue", "#{low[0]} and #{high[0]}") unless high[0] > low[0]
          markup.fault("maxOutValue not below minOutValue", "#{low[1]} and #{high[1]}") if high[1] < low[1]
        end
        private_class_method :check

        # @param low [Array<Float>, nil] value in and value out at the lower end
        # @param high [Array<Float>, nil]
        def initialize(low:, high:, clamp: true)
          @low, @high, @clamp = low, high, clamp
          freeze
        end

        def operations
          line = Pointwise::Curve.new(straight, domain: Pointwise::Curve::FLOAT)
          @clamp ? [line, Pointwise::Clamp.new(@low&.last, @high&.last)] : [line]
        end

        def attributes = @clamp ? {} : {"style" => "noClamp"}

        def fill(xml)
          NAMES.zip([@low&.first, @high&.first, @low&.last, @high&.last]).each { |name, value| xml.public_send(name, number(value)) if value }
        end

        private

        def straight
          slope = (@low && @high) ? (@high[1] - @low[1]) / (@high[0] - @low[0]) : 1.0
          from, to = @low || @high
          ->(x) { (x - from) * slope + to }
        end
      end
    end
  end
end
