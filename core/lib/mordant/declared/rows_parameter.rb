# frozen_string_literal: true

module Mordant
  class Declared
    # One declared parameter that is a list of rows of named numbers: points of a shape, samples of
    # a picture. Without rows it is neutral.
    class RowsParameter
      attr_reader :name, :label, :columns, :most, :about

      # @param columns [Array<Symbol>] names of a row's numbers
      # @param range [Range, Hash{Symbol => Range}] of all columns, or of each
      # @param most [Integer] rows
      # @param example [Array<Array<Float>>, nil] rows that are not neutral, where not any will do
      def initialize(name, label:, columns:, range:, most:, about:, example: nil)
        @example = example
        @name, @label, @columns, @most, @about = name, label, columns.freeze, most, about
        @ranges = columns.map { |column| range.is_a?(Hash) ? range.fetch(column) : range }.freeze
        freeze
      end

      def neutral = [].freeze

      def neutral_value = neutral

      # @param rows [Object] as parsed from JSON
      # @param path [String] for the error
      # @return [Array<Array<Float>>] frozen
      # @raise [ParameterError]
      def check(rows, path)
        refuse(path, "at most #{@most} rows of #{columns.join(", ")}", rows.is_a?(Array) ? "#{rows.size} rows" : rows) unless rows.is_a?(Array) && rows.size <= @most
        rows.each_with_index.map { |row, index| row(row, "#{path}[#{index}]") }.freeze
      end

      # Row by row; a list of another length stays as it is until the next one.
      #
      # @param share [Float] 0.0 is a, 1.0 is b
      def mix(a, b, share) = (a.size == b.size) ? a.zip(b).map { |one, other| one.zip(other).map { |x, y| x + (y - x) * share } } : a

      # @return [Array<Array<Float>>] that is not neutral
      def example = @example || [0.25, 0.5, 0.75].each_with_index.map { |place, index| @ranges.map.with_index { |range, column| (range.begin + (range.end - range.begin) * ((index + column).even? ? place : 0.5)).round(3) } }

      def to_h = {name: name.to_s, label:, columns: columns.map(&:to_s), ranges: @ranges.map { |range| [range.begin, range.end] }, most: @most, about:}

      private

      def row(row, path)
        refuse(path, "#{columns.size} numbers (#{columns.join(", ")})", row) unless row.is_a?(Array) && row.size == columns.size
        row.each_with_index.map do |value, index|
          next value.to_f if value.is_a?(Numeric) && value.real? && value.to_f.finite? && @ranges[index].cover?(value)

          refuse("#{path}[#{index}]", "#{columns[index]}, a number in #{@ranges[index]}", value)
        end.freeze
      end

      def refuse(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))
    end
  end
end
