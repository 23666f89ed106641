# frozen_string_literal: true

module Mordant
  module Lut
    class Clf
      # A 3x3 matrix, and an offset where a fourth column gives one.
      class Matrix < Node
        def self.element = "Matrix"

        def self.parse(markup, in_scale:, out_scale:)
          dimensions, values = array(markup)
          markup.fault("an Array of dim 3 3 or 3 4", dimensions.join(" ")) unless [[3, 3], [3, 4], [3, 3, 3], [3, 4, 3]].include?(dimensions) && values.size <= 12
          rows = values.to_a.each_slice(dimensions[1]).to_a
          new(rows: rows.map { |row| row.first(3).map { |x| x * in_scale / out_scale } }, offset: rows.map { |row| (row[3] || 0.0) / out_scale })
        end

        attr_reader :rows, :offset

        def initialize(rows:, offset: [0.0] * 3)
          @rows, @offset = rows, offset
          freeze
        end

        def operations
          matrix = Pointwise::Matrix.new(rows)
          return [matrix] if offset.all?(&:zero?)

          [matrix, Pointwise::Curve.new(offset.map { |by| ->(x) { x + by } }, domain: Pointwise::Curve::LOG)]
        end

        def fill(xml)
          plain = offset.all?(&:zero?)
          lines = rows.zip(offset).map { |row, by| words(plain ? row : [*row, by]) }
          xml.Array("\n#{lines.join("\n")}\n", "dim" => plain ? "3 3" : "3 4")
        end
      end
    end
  end
end
