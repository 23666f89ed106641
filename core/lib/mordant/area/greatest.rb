# frozen_string_literal: true

module Mordant
  module Area
    # The greatest value within an octagon about each pixel: the greatest along the two axes and the
    # two diagonals, one after another. Beyond the edges there is nothing, and NaN is none.
    #
    # Source: van Herk 1992 gives such greatest values in constant time; here windows are put together of smaller ones,
    # which takes as many steps as the radius has digits of MOST.
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

      # @param a [Numo::SFloat, Pointwise::Recorded]
      # @param b [Numo::SFloat, Pointwise::Recorded]
      # @return [Numo::SFloat, Pointwise::Recorded] the greater of both, or the one that is a number
      def self.greater(a, b) = a.is_a?(Pointwise::Recorded) ? a.none.choose(b, (b > a).choose(b, a)) : Numo::SFloat.maximum(a, b)

      MOST = 8 # windows that are put together at once
      GREATEST = (2..MOST).to_h { |count| [count, Pointwise::Sweep.new(count) { |*planes| [planes.reduce { |a, b| greater(a, b) }] }] }.freeze
      private_constant :GREATEST

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
          whole = [width * MOST, wanted].min
          offs = 0.step(whole - 1, width).map { |off| [off, whole - width].min * way }
          held = GREATEST.fetch(offs.size).parts(held, offs, Numo::SFloat.new(held.size - offs.last).allocate).first
          width = whole
        end
        held
      end
    end
  end
end
