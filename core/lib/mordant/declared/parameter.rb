# frozen_string_literal: true

module Mordant
  class Declared
    # One declared parameter of a step: a number, or a row of named numbers.
    #
    # unit is one of UNITS; it says how the number is written, never how it acts.
    class Parameter
      # Unit => what stands behind the number, decimals, size of one nudge.
      UNITS = {
        stops: {suffix: "st", decimals: 2, nudge: 0.05},
        ratio: {suffix: "", decimals: 3, nudge: 0.01},
        tone: {suffix: "%", decimals: 1, nudge: 0.005, shown_times: 100.0},
        exponent: {suffix: "", decimals: 3, nudge: 0.01},
        code: {suffix: "", decimals: 3, nudge: 0.005},
        share: {suffix: "%", decimals: 1, nudge: 0.01, shown_times: 100.0},
        points: {suffix: "pt", decimals: 1, nudge: 1.0},
        degrees: {suffix: "°", decimals: 1, nudge: 1.0},
        frames: {suffix: "fr", decimals: 0, nudge: 1.0}
      }.freeze

      attr_reader :name, :label, :channels, :unit, :range, :neutral, :about

      # @param channels [Array<Symbol>, nil] names of the numbers in a row; nil for one number
      # @param neutral [Float] the value that changes nothing
      def initialize(name, label:, unit:, range:, neutral:, about:, channels: nil)
        @name, @label, @unit, @range, @neutral, @about = name, label, unit, range, neutral, about
        @channels = channels&.freeze
        freeze
      end

      # @return [Float, Array<Float>]
      def neutral_value = channels ? Array.new(channels.size, neutral).freeze : neutral

      # @param value [Object] as parsed from JSON
      # @param path [String] for the error
      # @return [Float, Array<Float>] frozen
      # @raise [ParameterError] unless of the right count, finite and in range
      def check(value, path)
        return number(value, path) unless channels

        unless value.is_a?(Array) && value.size == channels.size
          raise ParameterError.new(path:, expected: "#{channels.size} numbers (#{channels.join(", ")})", found: value)
        end
        value.each_with_index.map { |one, index| number(one, "#{path}[#{index}]") }.freeze
      end

      # @param share [Float] 0.0 is a, 1.0 is b
      # @return [Float, Array<Float>] straight between two values
      def mix(a, b, share) = a.is_a?(Array) ? a.zip(b).map { |x, y| mix(x, y, share) } : a + (b - a) * share

      # @return [Float, Array<Float>] one that is not neutral, a tenth of its range off
      def example
        room = (range.end - range.begin) / 10.0
        one = ((neutral + room <= range.end) ? neutral + room : neutral - room).round(3)
        if channels
          Array.new(channels.size) { |index| (index == channels.size - 1) ? neutral.round(3) : one }
        else
          one
        end
      end

      def to_h
        {name: name.to_s, label:, channels: channels&.map(&:to_s), unit: unit.to_s, min: range.begin, max: range.end,
         neutral:, about:, **UNITS.fetch(unit)}
      end

      private

      def number(value, path)
        return value.to_f if value.is_a?(Numeric) && value.real? && value.to_f.finite? && range.cover?(value)

        raise ParameterError.new(path:, expected: "a number in #{range.begin}..#{range.end}", found: value)
      end
    end
  end
end
