# frozen_string_literal: true

module Mordant
  module Area
    # The greatest value within an octagon about each pixel: the greatest along the two axes and the
    # two diagonals, one after another. Beyond the edges there is nothing.
    #
    # Source: van Herk 1992 gives such greatest values in constant time; here windows are doubled,
    # which takes as many steps as the radius has binary digits.
    class Greatest
      DIAGONAL = 1 - Math.sqrt(0.5) # share of the radius, of an octagon whose sides are as near to it

      # @param radius [Integer] pixels
      def initialize(radius)
        @slant = [(radius * DIAGONAL).round, (radius - 1) / 2].min.clamp(0, nil)
        @straight = radius - 2 * @slant
        freeze
      end

      # @param rows [Numo::SFloat] [height, width]; never written to
      # @return [Numo::SFloat] [height, width]
      def call(rows)
        height, width = rows.shape
        pad = @straight + 2 * @slant
        return rows if pad.zero?

        out = Numo::SFloat.new(height, width).allocate
        step = [Pointwise::TILE * 4 / width, 2 * pad, 1].max
        (0...height).step(step) { |top| band(rows, top...[top + step, height].min, pad, out) }
        out
      end

      private

      # Some rows, with all around them that they depend on: as one vector, in which what lies one way lies equally far off. Where that
      # goes from one row into the next, it is in the frame of both, as far off as no pixel depends on.
      def band(rows, wanted, pad, out)
        height, width = rows.shape
        down = width + 2 * pad
        framed = Numo::SFloat.new(wanted.size + 2 * pad, down).fill(-Float::INFINITY)
        first, past = [wanted.begin - pad, 0].max, [wanted.end + pad, height].min
        framed[(first - wanted.begin + pad)...(past - wanted.begin + pad), pad...(pad + width)] = rows[first...past, true]
        ways = [[1, @straight], [down, @straight], [down + 1, @slant], [down - 1, @slant]]
        made = ways.reduce(framed.reshape!(framed.size)) { |held, (way, radius)| along(held, way, radius) }
        whole = Numo::SFloat.new(wanted.size * down).allocate
        whole[0...(made.size - 2 * @slant)] = made[(2 * @slant)..]
        out[wanted, true] = whole.reshape!(wanted.size, down)[true, 0...width]
      end

      # Of each the greatest from it on to as many places further one way as are within a radius either way.
      #
      # @param held [Numo::SFloat] [n]
      # @return [Numo::SFloat] [n - 2 * radius * way]
      def along(held, way, radius)
        width, wanted = 1, 2 * radius + 1
        while width < wanted
          by = [width, wanted - width].min
          held = Numo::SFloat.maximum(held[0...(held.size - by * way)], held[(by * way)..])
          width += by
        end
        held
      end
    end
  end
end
