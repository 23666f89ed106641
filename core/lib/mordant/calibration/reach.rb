# frozen_string_literal: true

module Mordant
  module Calibration
    # Whether a screen can show what its target wants: all of its colours, and a black that is dark enough.
    class Reach
      ENOUGH = 0.99 # of the target's gamut, as an area in u'v'
      DARK = 1.0 # L* of black at most, beside reference white: about 1 to 900

      # @param primaries [Array<Array<Float>>] xy of red, green and blue
      # @param kind [Target::Kind]
      # @return [Float] share of the target's gamut within them, as an area in u'v'
      def self.covered(primaries, kind)
        wanted, own = [[kind.primaries.red, kind.primaries.green, kind.primaries.blue], primaries].map { |three| three.map { |xy| Diagram.uv(xy) } }
        (area(within(wanted, own)) / area(wanted)).clamp(0.0, 1.0)
      end

      attr_reader :gamut, :contrast

      # @param primaries [Array<Array<Float>>] xy of the screen
      # @param white [Float] cd/m2
      # @param black [Float] cd/m2
      # @param kind [Target::Kind]
      def initialize(primaries:, white:, black:, kind:)
        @gamut = Reach.covered(primaries, kind)
        @white, @black = white, black
        @contrast = black.positive? ? white / black : nil
        freeze
      end

      def gamut? = gamut >= ENOUGH

      def black? = Colour::Difference.lab(Numo::DFloat[*Colour::Difference::WHITE_D65.map { |part| [part * @black / @white] }])[0, 0] <= DARK

      def reachable? = gamut? && black?

      # @return [Array<String>] what it cannot show, for a person
      def words
        [(format("It shows %.1f %% of the target's gamut. Colours beyond it go towards a grey of the same light until they can be shown.", gamut * 100) unless gamut?),
          (format("Its black is %.3g cd/m2, 1 to %.0f of its white. That is too bright: what is darker cannot be shown.", @black, contrast) unless black?)].compact
      end

      def to_h = {reachable: reachable?, gamut:, gamut_reachable: gamut?, black: @black, contrast:, black_reachable: black?, words:}

      class << self
        private

        # @return [Float] of a polygon
        def area(points) = points.each_index.sum { |at| cross(points[at - 1], points[at]) }.abs / 2

        def cross(a, b) = a[0] * b[1] - a[1] * b[0]

        # Part of a polygon within a convex one.
        # Source: Sutherland and Hodgman 1974.
        def within(points, by)
          turn = by.each_index.sum { |at| cross(by[at - 1], by[at]) } <=> 0
          by.each_index.reduce(points) { |left, at| cut(left, by[at - 1], by[at], turn) }
        end

        def cut(points, from, to, turn)
          side = ->(point) { turn * cross([to[0] - from[0], to[1] - from[1]], [point[0] - from[0], point[1] - from[1]]) }
          points.each_index.flat_map do |at|
            before, now = points[at - 1], points[at]
            a, b = side[before], side[now]
            crossing = before.zip(now).map { |x, y| x + (y - x) * a / (a - b) } if (a >= 0) != (b >= 0)
            [crossing, (now if b >= 0)].compact
          end
        end
      end
    end
  end
end
