# frozen_string_literal: true

module Mordant
  module Colour
    # 3x3 matrices as nested arrays, row by row, for column vectors.
    module Matrix3
      module_function

      # @return [Array<Array<Float>>] a * b: b acts first
      def multiply(a, b)
        a.map { |row| b.transpose.map { |column| dot(row, column) } }
      end

      # @return [Array<Float>] m * v
      def apply(m, v) = m.map { |row| dot(row, v) }

      def diagonal(values)
        values.each_index.map { |i| values.each_index.map { |j| (i == j) ? values[i].to_f : 0.0 } }
      end

      # @raise [ZeroDivisionError] of a singular matrix
      def inverse(m)
        (a, b, c), (d, e, f), (g, h, i) = m
        determinant = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)
        raise ZeroDivisionError, "the matrix is singular" if determinant.zero?

        [[e * i - f * h, c * h - b * i, b * f - c * e],
          [f * g - d * i, a * i - c * g, c * d - a * f],
          [d * h - e * g, b * g - a * h, a * e - b * d]].map { |row| row.map { |x| x / determinant } }
      end

      def dot(a, b) = a.zip(b).sum { |x, y| x * y }
    end
  end
end
