# frozen_string_literal: true

module Mordant
  module Cut
    # How much of the new shot each pixel has while a wipe runs: 0 or 1, and on the edge in
    # between. The area that is uncovered at a share of the way depends on the pattern alone. Immutable.
    #
    # Source: SMPTE ST 258:2004, table of wipe codes (patterns and their numbers).
    class Wipe
      # Number to words, and from places x and y, 0..1 across and down, and the picture's width over its height, when a
      # pixel is uncovered: the share of the way, 0..1.
      PATTERNS = {
        1 => ["left to right", ->(x, _, _) { x }],
        2 => ["top to bottom", ->(_, y, _) { y }],
        3 => ["from the top left corner", ->(x, y, _) { Wipe.greater(x, y) }],
        4 => ["from the top right corner", ->(x, y, _) { Wipe.greater(1 - x, y) }],
        5 => ["from the bottom right corner", ->(x, y, _) { Wipe.greater(1 - x, 1 - y) }],
        6 => ["from the bottom left corner", ->(x, y, _) { Wipe.greater(x, 1 - y) }],
        7 => ["from all corners", ->(x, y, _) { 1 - Wipe.lesser((x - 0.5).abs, (y - 0.5).abs) * 2 }],
        8 => ["from the middle of each quarter", ->(x, y, _) { Wipe.greater(((x - 0.5).abs - 0.25).abs, ((y - 0.5).abs - 0.25).abs) * 4 }],
        21 => ["doors open left and right", ->(x, _, _) { (x - 0.5).abs * 2 }],
        22 => ["doors open up and down", ->(_, y, _) { (y - 0.5).abs * 2 }],
        23 => ["from the middle of the top", ->(x, y, _) { Wipe.greater((x - 0.5).abs * 2, y) }],
        24 => ["from the middle of the right", ->(x, y, _) { Wipe.greater(1 - x, (y - 0.5).abs * 2) }],
        25 => ["from the middle of the bottom", ->(x, y, _) { Wipe.greater((x - 0.5).abs * 2, 1 - y) }],
        26 => ["from the middle of the left", ->(x, y, _) { Wipe.greater(x, (y - 0.5).abs * 2) }],
        41 => ["along the diagonal from the top left", ->(x, y, _) { (x + y) / 2 }],
        42 => ["along the diagonal from the top right", ->(x, y, _) { (1 - x + y) / 2 }],
        45 => ["doors open from the rising diagonal", ->(x, y, _) { (x + y - 1).abs }],
        46 => ["doors open from the falling diagonal", ->(x, y, _) { (x - y).abs }],
        101 => ["a rectangle from the middle", ->(x, y, _) { Wipe.greater((x - 0.5).abs, (y - 0.5).abs) * 2 }],
        102 => ["a diamond from the middle", ->(x, y, _) { (x - 0.5).abs + (y - 0.5).abs }],
        119 => ["a circle from the middle", ->(x, y, aspect) { Numo::NMath.sqrt(((x - 0.5) * aspect)**2 + (y - 0.5)**2) * (2 / Math.hypot(aspect, 1)) }],
        201 => ["a clock's hand from twelve", ->(x, y, _) { Wipe.turn(x - 0.5, 0.5 - y) }],
        202 => ["a clock's hand from three", ->(x, y, _) { Wipe.turn(y - 0.5, x - 0.5) }],
        203 => ["a clock's hand from six", ->(x, y, _) { Wipe.turn(0.5 - x, y - 0.5) }],
        204 => ["a clock's hand from nine", ->(x, y, _) { Wipe.turn(0.5 - y, 0.5 - x) }]
      }.freeze
      PLAIN = 1 # what stands for a pattern that is not known here
      EDGE = 0.004 # share of the way over which a pixel of a hard edge is uncovered

      class << self
        def greater(a, b) = Numo::SFloat.maximum(a, b)

        def lesser(a, b) = Numo::SFloat.minimum(a, b)

        # Share of a full turn, clockwise, from up.
        def turn(across, up)
          angle = Numo::NMath.atan2(across, up) / (2 * Math::PI)
          angle + Numo::SFloat.cast(angle < 0)
        end
      end

      # @param number [Integer] a key of PATTERNS
      # @param softness [Float] share of the way over which a pixel is uncovered, as far as it is more than EDGE
      # @param backward [Boolean] what is uncovered last comes first
      def initialize(number, softness: 0.0, backward: false)
        @number, @softness, @backward = number, softness, backward
        freeze
      end

      # @param share [Float] of the way, 0.0..1.0
      # @param raster [Array<Integer>] width and height of the whole picture
      # @param window [Grade::Window] of it
      # @return [Numo::SFloat] [window.size], 0..1
      def weights(share, raster, window)
        width, height = raster
        x = (Numo::SFloat.new(1, window.width).seq(window.left) + 0.5) / width
        y = (Numo::SFloat.new(window.height, 1).seq(window.top) + 0.5) / height
        field = PATTERNS.fetch(@number).last.call(x + Numo::SFloat.zeros(window.height, 1), y + Numo::SFloat.zeros(1, window.width), width.fdiv(height))
        field = field * -1.0 + 1.0 if @backward
        edge = [EDGE, @softness].max
        ((share * (1 + edge) - field) / edge).clip(0.0, 1.0).reshape(window.size)
      end

      # @return [Array] for JSON, what it depends on
      def stamp = [@number, @softness, @backward]

      def ==(other) = other.is_a?(Wipe) && stamp == other.stamp
    end
  end
end
