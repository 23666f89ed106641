# frozen_string_literal: true

module Mordant
  module Colour
    # Chromatic adaptation between white points (von Kries in a cone space).
    module Adaptation
      # Sources: Lam 1985 (Bradford, linearised); CIE 159:2004 (CAT02).
      CONES = {
        bradford: [[0.8951, 0.2664, -0.1614], [-0.7502, 1.7135, 0.0367], [0.0389, -0.0685, 1.0296]],
        cat02: [[0.7328, 0.4296, -0.1624], [-0.7036, 1.6975, 0.0061], [0.0030, 0.0136, 0.9834]]
      }.freeze

      module_function

      # @param from [Array<Float>] xy of the white in the source
      # @param to [Array<Float>] xy of the white to adapt to
      # @param method [Symbol] :bradford or :cat02
      # @return [Array<Array<Float>>] XYZ to XYZ
      def matrix(from, to, method = :bradford)
        return Pointwise::Matrix::IDENTITY if from == to

        cone = CONES.fetch(method)
        source, target = [from, to].map { |white| Matrix3.apply(cone, xyz(white)) }
        scale = Matrix3.diagonal(target.zip(source).map { |t, s| t / s })
        Matrix3.multiply(Matrix3.inverse(cone), Matrix3.multiply(scale, cone))
      end

      # @param xy [Array<Float>] chromaticity
      # @return [Array<Float>] XYZ with Y = 1
      def xyz(xy) = [xy[0] / xy[1], 1.0, (1.0 - xy[0] - xy[1]) / xy[1]]
    end
  end
end
