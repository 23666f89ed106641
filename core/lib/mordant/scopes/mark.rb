# frozen_string_literal: true

module Mordant
  module Scopes
    # Marks pixels of a picture with a colour.
    module Mark
      HATCH = 4 # pixels of a stripe

      module_function

      # @param drawn [Frame] codes of a display
      # @param marked [Numo::SFloat] [n], 0..1: how much of the mark is seen
      # @param colour [Array<Float>] display codes
      # @return [Frame]
      def paint(drawn, marked, colour)
        drawn.with(Numo::NArray.vstack(Array.new(3) { |channel| drawn.rgb[channel, true] * (marked * -1.0 + 1.0) + marked * colour[channel] }))
      end

      # @param drawn [#width, #height]
      # @return [Numo::Bit] [n], set on slanting stripes
      def stripes(drawn)
        place = Numo::Int32.new(1, drawn.width).seq + Numo::Int32.new(drawn.height, 1).seq
        ((place / HATCH) & 1).eq(0).reshape(drawn.width * drawn.height)
      end
    end
  end
end
