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
        @common = common_part
        freeze
      end

      # @param planes [Array<Numo::NArray>] overwritten
      # @return [Array<Numo::NArray>]
      def call(planes) = @common ? about_common(planes) : rows.map { |row| weighted(planes, row) }

      def merge(following)
        Matrix.new(Colour::Matrix3.multiply(following.rows, rows)) if following.is_a?(Matrix)
      end

      # Within rounding of the identity, so that it may be left out.
      def identity?
        rows.flatten.zip(IDENTITY.flatten).all? { |a, b| (a - b).abs < 1e-9 }
      end

      def tabulate = self

      def recordable? = true

      private

      # Weights that every channel is given alike, where the rest is a multiple of the
      # channel itself, as of a saturation; nil where it is not so.
      def common_part
        weights = Array.new(3) { |column| rows[(column + 1) % 3][column] }
        scale = rows[0][0] - weights[0]
        fits = (0..2).all? do |i|
          (0..2).all? { |j| (rows[i][j] - weights[j] - ((i == j) ? scale : 0.0)).abs < 1e-12 }
        end
        [weights, scale].freeze if fits
      end

      def about_common(planes)
        weights, scale = @common
        common = weighted(planes, weights)
        planes.each { |plane| ((plane.inplace * scale).inplace + common).out_of_place! }
        common.free
        planes
      end

      def weighted(planes, row)
        sum = planes[0] * row[0]
        [1, 2].each do |i|
          part = planes[i] * row[i]
          sum.inplace + part
          part.free
        end
        sum.out_of_place!
      end
    end
  end
end
