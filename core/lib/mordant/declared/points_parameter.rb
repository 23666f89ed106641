# frozen_string_literal: true

module Mordant
  class Declared
    # One declared parameter of a step that is a curve through freely placed points:
    # rows of place and value, places rising. Without points the curve is neutral.
    class PointsParameter
      MOST = 32 # points
      APART = 0.002 # least distance of two places

      attr_reader :name, :label, :about, :range

      # @param across [Symbol] what the places are: :tone, :hue, :saturation or :share
      # @param range [Range] of values
      # @param rest [Symbol] where a neutral curve lies: :diagonal or :flat (at 0)
      def initialize(name, label:, across:, range:, about:, rest: :flat)
        @name, @label, @across, @range, @about, @rest = name, label, across, range, about, rest
        freeze
      end

      def neutral = [].freeze

      def neutral_value = neutral

      # @param points [Array<Array<Float>>] at least one
      # @return [Spline]
      def spline(points) = Spline.new(points, round: @across == :hue, straight: @across == :tone && @rest == :diagonal)

      # @return [Range] of places; tones may lie beyond black and white
      def places = (@across == :tone) ? -0.5..1.5 : 0.0..1.0

      # @param value [Object] as parsed from JSON
      # @param path [String] for the error
      # @return [Array<Array<Float>>] frozen
      # @raise [ParameterError]
      def check(value, path)
        refuse(path, "at most #{MOST} points", value) unless value.is_a?(Array) && value.size <= MOST
        points = value.each_with_index.map { |point, index| point(point, "#{path}[#{index}]") }
        close = points.each_cons(2).find { |(a, _), (b, _)| b - a < APART }
        refuse(path, "places that rise by #{APART} or more", close.map(&:first)) if close
        points.freeze
      end

      # Point by point; a curve with another count of points stays as it is until the next one.
      #
      # @param share [Float] 0.0 is a, 1.0 is b
      def mix(a, b, share) = (a.size == b.size) ? a.zip(b).map { |one, other| one.zip(other).map { |x, y| x + (y - x) * share } } : a

      # @return [Array<Array<Float>>] a curve that is not neutral
      def example = [0.25, 0.75].map { |place| [place, (((@rest == :diagonal) ? place : 0.0) + range.end / 10.0).round(3).clamp(range)] }

      def to_h
        {name: name.to_s, label:, across: @across.to_s, rest: @rest.to_s, min: range.begin, max: range.end,
         first: places.begin, last: places.end, about:}
      end

      private

      def point(point, path)
        fine = point.is_a?(Array) && point.size == 2 && point.all? { |x| x.is_a?(Numeric) && x.real? && x.to_f.finite? }
        refuse(path, "a place and a value", point) unless fine
        refuse(path, "a place in #{places}", point[0]) unless places.cover?(point[0])
        refuse(path, "a value in #{range}", point[1]) unless range.cover?(point[1])
        point.map(&:to_f).freeze
      end

      def refuse(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))
    end
  end
end
