# frozen_string_literal: true

module Mordant
  module Track
    # A map of the plane on itself that keeps lines straight: a homography, rows of a 3x3 matrix,
    # of places in heights of the picture from its middle. Immutable.
    class Map
      # @return [Array<Float>] nine numbers, row by row, the last 1
      attr_reader :numbers

      # @param numbers [Array<Float>]
      def initialize(numbers)
        @numbers = numbers.map { |one| one / numbers.last }.freeze
        freeze
      end

      NONE = new([1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0])

      # @param turn [Float] radians, from right to down
      # @param about [Array(Float, Float)]
      # @return [Map]
      def self.similarity(x, y, turn: 0.0, scale: 1.0, about: [0.0, 0.0])
        cosine, sine = scale * Math.cos(turn), scale * Math.sin(turn)
        new([cosine, -sine, x + about[0] - cosine * about[0] + sine * about[1], sine, cosine, y + about[1] - sine * about[0] - cosine * about[1], 0.0, 0.0, 1.0])
      end

      # @param x [Float, Numo::NArray]
      # @return [Array] where it goes
      def call(x, y)
        a, b, c, d, e, f, g, h, = numbers
        return [x * a + y * b + c, x * d + y * e + f] if g.zero? && h.zero?

        weight = x * g + y * h + 1.0
        [(x * a + y * b + c) / weight, (x * d + y * e + f) / weight]
      end

      # @param first [Map] that comes before
      # @return [Map]
      def *(other)
        a, b = [self, other].map { |map| map.numbers.each_slice(3).to_a }
        Map.new(a.flat_map { |row| b.transpose.map { |column| row.zip(column).sum { |x, y| x * y } } })
      end

      # @return [Map] the way back
      def inverse
        a, b, c, d, e, f, g, h, i = numbers
        Map.new([e * i - f * h, c * h - b * i, b * f - c * e, f * g - d * i, a * i - c * g, c * d - a * f, d * h - e * g, b * g - a * h, a * e - b * d])
      end

      # What it does near a place.
      #
      # @return [Hash{Symbol => Float}] x, y: how far the place moves; turn, degrees clockwise; scale
      def near(x, y)
        there = call(x, y)
        step = 1e-4
        right, down = [[x + step, y], [x, y + step]].map { |px, py| call(px, py).zip(there).map { |a, b| (a - b) / step } }
        {x: there[0] - x, y: there[1] - y, turn: Math.atan2(right[1] - down[0], right[0] + down[1]) * 180 / Math::PI, scale: Math.sqrt((right[0] * down[1] - right[1] * down[0]).abs)}
      end
    end
  end
end
