# frozen_string_literal: true

module Mordant
  module Colour
    # Slope, offset and power for each channel, then one saturation.
    #
    # Source: ASC Color Decision List transfer functions and interchange syntax,
    # 1.2. Saturation weighs luma as BT.709 does. With +clamp+ values are held to
    # 0..1 before the power and after the saturation, as 1.2 asks; without it
    # negative values skip the power. Immutable.
    class CDL
      LUMA = [0.2126, 0.7152, 0.0722].freeze

      attr_reader :slope, :offset, :power, :saturation, :id, :description

      # @param slope [Array<Float>] red, green, blue, 0 or more
      # @param offset [Array<Float>]
      # @param power [Array<Float>] above 0
      # @param saturation [Float] 0 or more
      # @param id [String, nil] name of the correction in a collection
      # @raise [ParameterError]
      def initialize(slope: [1.0] * 3, offset: [0.0] * 3, power: [1.0] * 3, saturation: 1.0, id: nil, description: nil)
        @slope = check("slope", slope, "three numbers of 0 or more") { |x| x >= 0 }
        @offset = check("offset", offset, "three numbers") { true }
        @power = check("power", power, "three numbers above 0") { |x| x > 0 }
        @saturation = check("saturation", [saturation], "a number of 0 or more") { |x| x >= 0 }.first
        @id, @description = id, description
        freeze
      end

      # @return [Array] Pointwise operations
      def operations(clamp: true)
        limit = clamp ? [Pointwise::Clamp.new(0.0, 1.0)] : []
        [Pointwise::Matrix.new(Matrix3.diagonal(slope)), *curve { |x, c| x + offset[c] }, *limit,
          *curve { |x, c| raised(x, power[c]) }, *saturate(saturation), *limit]
      end

      # The way back, for powers and saturations that have one.
      #
      # @return [Array]
      # @raise [ParameterError] of a slope or saturation of 0
      def inverse_operations(clamp: true)
        if saturation.zero? || slope.any?(&:zero?)
          raise ParameterError.new(path: "cdl", expected: "slope and saturation above 0 to go back", found: to_h)
        end
        limit = clamp ? [Pointwise::Clamp.new(0.0, 1.0)] : []
        [*limit, *saturate(1.0 / saturation), *limit, *curve { |x, c| raised(x, 1.0 / power[c]) }, *curve { |x, c| (x - offset[c]) / slope[c] }, *limit]
      end

      def to_h = {slope:, offset:, power:, saturation:}

      def ==(other) = other.is_a?(CDL) && to_h == other.to_h

      private

      def check(name, values, expected)
        fine = values.is_a?(Array) && values.size == ((name == "saturation") ? 1 : 3) &&
          values.all? { |x| x.is_a?(Numeric) && x.to_f.finite? && yield(x) }
        raise ParameterError.new(path: name, expected:, found: values) unless fine

        values.map(&:to_f).freeze
      end

      def curve
        [Pointwise::Curve.new(Array.new(3) { |c| ->(x) { yield x, c } }, domain: Pointwise::Curve::LOG)]
      end

      def raised(x, exponent)
        (exponent == 1.0) ? x : Piecewise.power(x, exponent) + x.clip(nil, 0.0)
      end

      def saturate(amount)
        return [] if amount == 1.0

        [Pointwise::Matrix.new(Array.new(3) { |i| Array.new(3) { |j| (1 - amount) * LUMA[j] + ((i == j) ? amount : 0.0) } })]
      end
    end
  end
end
