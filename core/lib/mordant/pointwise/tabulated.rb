# frozen_string_literal: true

module Mordant
  module Pointwise
    # A Curve through interpolated tables, one for each different function.
    class Tabulated
      # @param curve [Curve]
      # @return [Tabulated]
      def self.of(curve)
        log = curve.domain == Curve::LOG
        tables = curve.functions.uniq.to_h do |function|
          [function, log ? UniformTable.new(function, fine: curve.fine?) : FloatTable.new(function)]
        end
        new(curve.functions.map { |function| tables.fetch(function) })
      end

      # @param tables [Array<#call>] of the channels
      def initialize(tables)
        @tables = tables.freeze
        freeze
      end

      # @return [Tabulated] see MadeWhenRead#quick
      def quick = Tabulated.new(@tables.map { |table| table.method(:quick) })

      def recordable? = true

      # @param planes [Array<Numo::SFloat>]
      # @return [Array<Numo::SFloat>] new vectors
      def call(planes)
        planes.each_with_index.map { |plane, channel| @tables[channel].call(plane) }
      end
    end
  end
end
