# frozen_string_literal: true

module Mordant
  module Pointwise
    # A Curve through interpolated tables, one for each different function.
    class Tabulated
      # @param curve [Curve]
      def initialize(curve)
        kind = (curve.domain == Curve::LOG) ? UniformTable : FloatTable
        tables = curve.functions.uniq.to_h { |function| [function, kind.new(function)] }
        @tables = curve.functions.map { |function| tables.fetch(function) }.freeze
        freeze
      end

      # @param planes [Array<Numo::SFloat>]
      # @return [Array<Numo::SFloat>] new vectors
      def call(planes)
        planes.each_with_index.map { |plane, channel| @tables[channel].call(plane) }
      end
    end
  end
end
