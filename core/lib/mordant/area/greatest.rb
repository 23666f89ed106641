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

      # Some rows, with all around them that they depend on.
      def band(rows, wanted, pad, out)
        height, width = rows.shape
        framed = Numo::SFloat.new(wanted.size + 2 * pad, width + 2 * pad).fill(-Float::INFINITY)
        first, past = [wanted.begin - pad, 0].max, [wanted.end + pad, height].min
        framed[(first - wanted.begin + pad)...(past - wanted.begin + pad), pad...(pad + width)] = rows[first...past, true]
        ways = [[[0, 1], @straight], [[1, 0], @straight], [[1, 1], @slant], [[1, -1], @slant]]
        out[wanted, true] = ways.reduce(framed) { |held, (way, radius)| along(held, way, radius) }[pad...(pad + wanted.size), pad...(pad + width)]
      end

      # The greatest from so many places before to so many after.
      def along(rows, way, radius)
        return rows if radius.zero?

        wanted, width, held = 2 * radius + 1, 1, rows
        while width < wanted
          by = [width, wanted - width].min
          held = Numo::SFloat.maximum(held, shifted(held, way, by))
          width += by
        end
        shifted(held, way, -radius)
      end

      # What lies so many places further on.
      def shifted(rows, (down, across), by)
        height, width = rows.shape
        dy, dx = down * by, across * by
        made = Numo::SFloat.new(height, width).fill(-Float::INFINITY)
        return made if dy.abs >= height || dx.abs >= width

        into, from = [dy, dx].zip([height, width]).map { |off, size| [[-off, 0].max...[size - off, size].min, [off, 0].max...[size + off, size].min] }.transpose
        made[*into] = rows[*from]
        made
      end
    end
  end
end
