# frozen_string_literal: true

module Mordant
  module Rendition
    # Intensity and two colour differences, in which equal steps look about equal at all levels of light.
    #
    # Source: ITU-R BT.2100-2, table 7, constant intensity with reference PQ; differences: ITU-R BT.2124-0.
    module ICtCp
      # Linear BT.2020 to light of the long, middle and short cones, and their PQ codes to I, Ct and Cp, all /4096.
      CONES = [[1688.0, 2146.0, 262.0], [683.0, 2951.0, 462.0], [99.0, 309.0, 3688.0]].map { |row| row.map { |part| part / 4096 } }.freeze
      AXES = [[2048.0, 2048.0, 0.0], [6610.0, -13_613.0, 7003.0], [17_933.0, -17_390.0, -543.0]].map { |row| row.map { |part| part / 4096 } }.freeze
      FROM_CONES, FROM_AXES = [CONES, AXES].map { |matrix| Colour::Matrix3.inverse(matrix).freeze }
      NITS = 1 / 100.0 # cd/m2 to the unit of Transfer::PQ
      # Pointwise operations from linear BT.2020, 1.0 at 100 cd/m2, to I, Ct and Cp, and back; curves that keep their tables.
      THERE = [Pointwise::Matrix.new(CONES), Pointwise::Curve.new(Colour::Transfer::PQ.method(:encode)), Pointwise::Matrix.new(AXES)].freeze
      BACK = [Pointwise::Matrix.new(FROM_AXES), Pointwise::Curve.new(Colour::Transfer::PQ.method(:decode), domain: Pointwise::Curve::LOG), Pointwise::Matrix.new(FROM_CONES)].freeze
      WEIGHTS = [1.0, 0.5, 1.0].freeze # of I, Ct and Cp in a difference
      JUST = 720.0 # differences of 1 are just to be seen

      module_function

      # @param light [Numo::NArray] [3, n] linear BT.2020 in cd/m2; what cones would see as less than none is none
      # @return [Numo::NArray] [3, n] I 0.0..1.0, Ct and Cp about 0
      def of(light) = turned(AXES, Colour::Transfer::PQ.encode(turned(CONES, light) * NITS))

      # @param one [Numo::NArray] [3, n]
      # @param other [Numo::NArray] [3, n]
      # @return [Numo::NArray] [n] delta E ITP
      def difference(one, other) = Numo::NMath.sqrt((0..2).map { |axis| ((one[axis, true] - other[axis, true]) * WEIGHTS[axis])**2 }.reduce(:+)) * JUST

      def turned(matrix, rows) = Numo::NArray.vstack(matrix.map { |row| row.each_with_index.map { |part, at| rows[at, true] * part }.reduce(:+) })
      private_class_method :turned
    end
  end
end
