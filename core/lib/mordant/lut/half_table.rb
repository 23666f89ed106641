# frozen_string_literal: true

module Mordant
  module Lut
    # A function tabulated over the 65,536 half floats, straight between neighbours;
    # beyond the largest finite one it stays.
    class HalfTable
      LARGEST = 0x7bff # bits of 65_504
      NEGATIVE = 0x8000

      # @param table [Numo::DFloat] [65536, n]
      # @return [Array<#call>] one for each column
      def self.columns(table) = Array.new(table.shape[1]) { |column| new(table[true, column].dup).method(:call) }

      # @param values [Numo::DFloat] [65536] by the bits of the half float
      def initialize(values)
        @positive = values[0..LARGEST].dup
        @negative = values[NEGATIVE..(NEGATIVE + LARGEST)].dup
        @nodes = Numo::DFloat.cast(Media::Half.decode(Numo::UInt16.cast(Numo::Int32.new(LARGEST + 1).seq)))
        freeze
      end

      # @param x [Numo::NArray]
      # @return [Numo::NArray] of the same element type; NaN stays NaN
      def call(x)
        size = Numo::DFloat.cast(x).abs
        place = place_of(size)
        low, high = @nodes[place].dup, @nodes[place + 1].dup
        share = ((size - low) / (high - low)).clip(0.0, 1.0)
        out = Colour::Piecewise.select(x < 0.0, mixed(@negative, place, share), mixed(@positive, place, share))
        out[x.isnan] = Float::NAN
        x.class.cast(out)
      end

      private

      # The last node at or below, from the exponent and the leading ten bits.
      def place_of(size)
        Media::Half.floor_bits(Numo::SFloat.cast(size.clip(0.0, Media::Half::LARGEST))).clip(0, LARGEST - 1)
      end

      def mixed(values, place, share)
        low = values[place].dup
        low + (values[place + 1].dup - low) * share
      end
    end
  end
end
