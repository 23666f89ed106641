# frozen_string_literal: true

module Mordant
  module Pointwise
    # A 3x3 matrix: out = rows * in.
    class Matrix
      IDENTITY = [[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]].freeze

      # @return [Array<Array<Float>>] row by row, for column vectors
      attr_reader :rows

      def initialize(rows)
        @rows = rows.map(&:freeze).freeze
        freeze
      end

      def call(planes)
        rows.map do |row|
          sum = planes[0] * row[0]
          [1, 2].each do |i|
            part = planes[i] * row[i]
            sum.inplace + part
            part.free
          end
          sum.out_of_place!
        end
      end

      def merge(following)
        Matrix.new(Colour::Matrix3.multiply(following.rows, rows)) if following.is_a?(Matrix)
      end

      # Within rounding of the identity, so that it may be left out.
      def identity?
        rows.flatten.zip(IDENTITY.flatten).all? { |a, b| (a - b).abs < 1e-9 }
      end

      def tabulate = self
    end
  end
end
