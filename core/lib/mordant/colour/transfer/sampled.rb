# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # A curve known at points, straight between them and on beyond the first and
      # the last. Immutable.
      class Sampled
        # @param points [Array<Array<Float>>] code and light, both rising
        # @raise [ParameterError]
        def initialize(points)
          rising = points.size >= 2 && points.each_cons(2).all? { |(c0, l0), (c1, l1)| c0 < c1 && l0 < l1 }
          raise ParameterError.new(path: "points", expected: "two or more pairs of code and light, both rising", found: points.first(4)) unless rising

          @codes, @lights = points.transpose.map { |row| row.map(&:to_f).freeze }
          freeze
        end

        def encode(linear) = straight(linear, @lights, @codes)

        def decode(code) = straight(code, @codes, @lights)

        private

        # The sum of what each stretch rises; the outer ones have no end.
        def straight(x, from, to)
          last = from.size - 2
          (0..last).reduce(x * 0.0 + to.first) do |sum, i|
            low = i.zero? ? nil : from[i]
            high = (i == last) ? nil : from[i + 1]
            held = (low || high) ? x.clip(low, high) : x
            sum + (held - from[i]) * ((to[i + 1] - to[i]) / (from[i + 1] - from[i]))
          end
        end
      end
    end
  end
end
