# frozen_string_literal: true

module Mordant
  module Cut
    # How much of the new shot each pixel has while a wipe runs: 0 or 1, and on the edge in
    # between. The area that is uncovered at a share of the way depends on the pattern alone.
    #
    # Source: SMPTE ST 258:2004, table of wipe codes (patterns and their numbers).
    module Wipe
      # Number to words, and from places x and y, 0..1 across and down, when a pixel is
      # uncovered: the share of the way, 0..1.
      PATTERNS = {
        1 => ["left to right", ->(x, _) { x }],
        2 => ["top to bottom", ->(_, y) { y }],
        3 => ["from the top left corner", ->(x, y) { Wipe.greater(x, y) }],
        4 => ["from the top right corner", ->(x, y) { Wipe.greater(1 - x, y) }],
        5 => ["from the bottom right corner", ->(x, y) { Wipe.greater(1 - x, 1 - y) }],
        6 => ["from the bottom left corner", ->(x, y) { Wipe.greater(x, 1 - y) }],
        21 => ["doors open left and right", ->(x, _) { (x - 0.5).abs * 2 }],
        22 => ["doors open up and down", ->(_, y) { (y - 0.5).abs * 2 }],
        41 => ["along the diagonal from the top left", ->(x, y) { (x + y) / 2 }],
        42 => ["along the diagonal from the top right", ->(x, y) { (1 - x + y) / 2 }],
        101 => ["a rectangle from the middle", ->(x, y) { Wipe.greater((x - 0.5).abs, (y - 0.5).abs) * 2 }],
        102 => ["a diamond from the middle", ->(x, y) { (x - 0.5).abs + (y - 0.5).abs }],
        119 => ["an ellipse from the middle", ->(x, y) { Numo::NMath.sqrt((x - 0.5)**2 + (y - 0.5)**2) * Math.sqrt(2) }],
        201 => ["a clock's hand from twelve", ->(x, y) { Wipe.turn(x - 0.5, 0.5 - y) }],
        202 => ["a clock's hand from three", ->(x, y) { Wipe.turn(y - 0.5, x - 0.5) }]
      }.freeze
      PLAIN = 1 # what stands for a pattern that is not known here
      EDGE = 0.004 # share of the way over which a pixel is uncovered

      module_function

      # @param number [Integer] a key of PATTERNS
      # @param share [Float] of the way, 0.0..1.0
      # @param raster [Array<Integer>] width and height of the whole picture
      # @param window [Grade::Window] of it
      # @return [Numo::SFloat] [window.size], 0..1
      def weights(number, share, raster, window)
        width, height = raster
        x = (Numo::SFloat.new(1, window.width).seq(window.left) + 0.5) / width
        y = (Numo::SFloat.new(window.height, 1).seq(window.top) + 0.5) / height
        field = PATTERNS.fetch(number).last.call(x + Numo::SFloat.zeros(window.height, 1), y + Numo::SFloat.zeros(1, window.width))
        ((share * (1 + EDGE) - field) / EDGE).clip(0.0, 1.0).reshape(window.size)
      end

      def greater(a, b) = Numo::SFloat.maximum(a, b)

      # Share of a full turn, clockwise, from up.
      def turn(across, up)
        angle = Numo::NMath.atan2(across, up) / (2 * Math::PI)
        angle + Numo::SFloat.cast(angle < 0)
      end
    end
  end
end
