# frozen_string_literal: true

module Mordant
  module Lut
    # A table over the RGB cube.
    #
    # Shape: data is a Numo::DFloat [size^3, 3], red index fastest, then green,
    # then blue. Values outside the domain are held to it; a pixel with a NaN
    # becomes NaN. Immutable.
    class Lattice
      SIZES = (2..129)
      METHODS = %i[tetrahedral trilinear].freeze
      WHOLE = [[0.0] * 3, [1.0] * 3].freeze

      attr_reader :size, :data, :domain, :interpolation

      # @param data [Numo::DFloat] [size^3, 3]
      # @param domain [Array<Array<Float>>] lowest and highest red, green, blue
      # @raise [ShapeError, ParameterError]
      def initialize(data, size:, domain: WHOLE, interpolation: :tetrahedral)
        unless SIZES.cover?(size) && data.is_a?(Numo::DFloat) && data.shape == [size**3, 3]
          raise ShapeError, "a lattice of #{size} needs a DFloat of shape [#{size**3}, 3], found #{data.class} of shape #{data.shape}"
        end
        unless METHODS.include?(interpolation)
          raise ParameterError.new(path: "interpolation", expected: METHODS.join(" or "), found: interpolation)
        end
        @data, @size, @domain, @interpolation = data, size, domain, interpolation
        @tables = {Numo::DFloat => columns(Numo::DFloat), Numo::SFloat => columns(Numo::SFloat)}.freeze
        freeze
      end

      # @param size [Integer]
      # @return [Numo::DFloat] [3, size^3] the nodes of a lattice over 0..1; not to be written to
      def self.nodes(size)
        @nodes ||= {}
        @nodes[size] ||= make_nodes(size)
      end

      def self.make_nodes(size)
        index = Numo::Int64.new(size**3).seq
        Numo::NArray.vstack([index % size, index / size % size, index / size**2].map { |i| Numo::DFloat.cast(i) / (size - 1) }).freeze
      end
      private_class_method :make_nodes

      # @return [Lattice] the same table read otherwise
      def interpolated(method) = Lattice.new(data, size:, domain:, interpolation: method)

      def merge(_following) = nil

      def tabulate = self

      # @param planes [Array<Numo::NArray>]
      # @return [Array<Numo::NArray>] new vectors of the same element type
      def call(planes)
        positions = planes.each_with_index.map { |plane, channel| position(plane, channel) }
        lows = positions.map { |p| Numo::Int64.cast(p.clip(0, size - 1)).clip(0, size - 2) }
        rests = positions.zip(lows).map { |p, low| (p - low).clip(0.0, 1.0) }
        base = lows[0] + lows[1] * size + lows[2] * size**2
        send(@interpolation, base, rests, @tables.fetch(planes.first.class))
      end

      private

      STRIDES_OF = ->(size) { [1, size, size**2] }

      def columns(type) = Array.new(3) { |channel| type.cast(data[true, channel].dup) }

      def position(plane, channel)
        low, high = domain[0][channel], domain[1][channel]
        (plane - low) * ((size - 1) / (high - low))
      end

      # From the low corner to the high one along the edges of the largest rest, the
      # middle one and the smallest.
      def tetrahedral(base, rests, tables)
        strides = STRIDES_OF[size]
        high = rests.reduce { |a, b| a.clip(b, nil) }
        low = rests.reduce { |a, b| a.clip(nil, b) }
        middle = rests.reduce(:+) - high - low
        first, last = outermost(rests, strides)
        corners = [base, base + first, base + (strides.sum - last), base + strides.sum]
        weights = [high * -1 + 1, high - middle, middle - low, low]
        blend(corners, weights, tables)
      end

      # Strides of the axes with the largest and the smallest rest; of equal ones
      # the first is the largest and the last the smallest.
      def outermost(rests, strides)
        r, g, b = rests
        red_most = (r >= g) & (r >= b)
        green_most = (g >= b) & ~red_most
        blue_least = (b <= r) & (b <= g)
        green_least = (g <= r) & ~blue_least
        [[red_most, green_most], [~(blue_least | green_least), green_least]].map do |red, green|
          strides[2] + Numo::Int64.cast(red) * (strides[0] - strides[2]) + Numo::Int64.cast(green) * (strides[1] - strides[2])
        end
      end

      def trilinear(base, rests, tables)
        strides = STRIDES_OF[size]
        corners, weights = [], []
        8.times do |corner|
          bits = [corner & 1, corner >> 1 & 1, corner >> 2]
          corners << base + bits.zip(strides).sum { |bit, stride| bit * stride }
          weights << bits.zip(rests).map { |bit, rest| bit.zero? ? rest * -1 + 1 : rest }.reduce(:*)
        end
        blend(corners, weights, tables)
      end

      def blend(corners, weights, tables)
        tables.map { |table| corners.zip(weights).map { |index, weight| table[index].dup * weight }.reduce(:+) }
      end
    end
  end
end
