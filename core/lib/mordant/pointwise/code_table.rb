# frozen_string_literal: true

module Mordant
  module Pointwise
    # The head of a chain: per-channel functions straight from 16-bit source
    # code values, one entry each, so that nothing is interpolated.
    class CodeTable
      CODES = 65_536
      LARGEST_CODE = 65_535.0

      # @param curve [Curve] from code / 65_535 onward
      def initialize(curve)
        codes = Numo::DFloat.new(CODES).seq / LARGEST_CODE
        tables = curve.functions.uniq.to_h { |function| [function, Numo::SFloat.cast(function.call(codes))] }
        @tables = curve.functions.map { |function| tables.fetch(function) }.freeze
        freeze
      end

      # The codes as numbers of 0.0..1.0.
      PLAIN = new(Curve.new(:itself.to_proc))

      # @param planes [Array<Numo::UInt16>]
      # @return [Array<Numo::SFloat>]
      def call(planes)
        planes.each_with_index.map { |plane, channel| @tables[channel][plane].dup }
      end
    end
  end
end
