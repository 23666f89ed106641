# frozen_string_literal: true

module Mordant
  module Scopes
    # Where tones break: steps of a code or two along areas that are even on either side of them.
    #
    # Of luma, across and down: a step between LEAST and MOST, where what lies FLAT pixels before it and after it differs from pixel to pixel by no
    # more than EVEN of that step; and of those, where TOGETHER lie close to each other, as a break runs along.
    module Banding
      FLAT = 5 # pixels
      LEAST, MOST = 0.45 / 1023, 6.5 / 1023 # of the full range: half a code of 10 bits to one and a half of 8
      EVEN = 0.3
      TOGETHER = 3 # within a square of five pixels
      COLOUR = [0.83, 0.35, 0.72].freeze # of the mark, display codes

      module_function

      # @param signal [Signal]
      # @return [Numo::SFloat] [n], 1 where tones break, else 0
      def places(signal)
        rows = signal.luma.reshape(signal.height, signal.width)
        found = breaks(rows) | breaks(rows.transpose.dup).transpose
        some = Numo::SFloat.cast(found).reshape(signal.size)
        window = Grade::Window.whole(signal.width, signal.height)
        near = Area::Taps.new([1.0, 1.0, 1.0]).call(some, window) * 25.0
        some * Numo::SFloat.cast(near >= TOGETHER - 0.5)
      end

      # @param signal [Signal]
      # @return [Float] share of the pixels
      def share(signal) = places(signal).mean.round(6)

      # @param drawn [Frame] codes of a display, on the signal's raster
      # @param signal [Signal]
      # @return [Frame]
      def paint(drawn, signal) = Mark.paint(drawn, places(signal), COLOUR)

      # Steps along rows; each is marked on the pixel before it.
      def breaks(rows)
        height, width = rows.shape
        found = Numo::Bit.zeros(height, width)
        return found if width < 2 * FLAT + 2

        steps = (rows[true, 1..] - rows[true, 0...-1]).abs
        inner = FLAT...(width - 1 - FLAT)
        own = steps[true, inner]
        beside = [-1, 1].map { |way| (1..FLAT).map { |at| steps[true, (inner.begin + way * at)...(inner.end + way * at)] }.reduce { |a, b| Numo::SFloat.maximum(a, b) } }
        uneven = Numo::SFloat.maximum(*beside)
        found[true, inner] = (own >= LEAST) & (own <= MOST) & (uneven <= own * EVEN)
        found
      end
      private_class_method :breaks
    end
  end
end
