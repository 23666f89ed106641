# frozen_string_literal: true

module Mordant
  class Declared
    # One declared parameter that is a colour: hue in degrees, chroma and lightness. What space they
    # are of, the step says.
    class ColourParameter
      RANGES = {hue: 0.0..360.0, chroma: 0.0..1.0, lightness: 0.0..1.0}.freeze

      attr_reader :name, :label, :neutral, :about

      # @param neutral [Array<Float>] hue, chroma and lightness that change nothing
      def initialize(name, label:, neutral:, about:)
        @name, @label, @neutral, @about = name, label, neutral.freeze, about
        freeze
      end

      def neutral_value = neutral

      # @param value [Object] as parsed from JSON
      # @param path [String] for the error
      # @return [Array<Float>] frozen
      # @raise [ParameterError]
      def check(value, path)
        raise ParameterError.new(path:, expected: "3 numbers (#{RANGES.keys.join(", ")})", found: value) unless value.is_a?(Array) && value.size == RANGES.size

        value.zip(RANGES).each_with_index.map do |(one, (part, range)), index|
          next one.to_f if one.is_a?(Numeric) && one.real? && one.to_f.finite? && range.cover?(one)

          raise ParameterError.new(path: "#{path}[#{index}]", expected: "#{part}, a number in #{range}", found: one)
        end.freeze
      end

      # Hue goes the shorter way round.
      #
      # @param share [Float] 0.0 is a, 1.0 is b
      # @return [Array<Float>]
      def mix(a, b, share)
        turn = (b[0] - a[0] + 180.0) % 360.0 - 180.0
        [(a[0] + turn * share) % 360.0, *[1, 2].map { |part| a[part] + (b[part] - a[part]) * share }]
      end

      # @return [Array<Float>] one that is not neutral
      def example = [(neutral[0] + 30.0) % 360.0, 0.5, 0.5]

      def to_h = {name: name.to_s, label:, neutral:, about:, ranges: RANGES.to_h { |part, range| [part.to_s, [range.begin, range.end]] }}
    end
  end
end
