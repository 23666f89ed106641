# frozen_string_literal: true

module Mordant
  module Lut
    # A table for each channel, read by straight lines between equal distances.
    # Values outside the domain are held to it. Immutable.
    class Curve1d
      SIZES = (2..65_536)

      attr_reader :data, :domain

      # @param data [Numo::DFloat] [size, 3]
      # @param domain [Array<Array<Float>>] lowest and highest red, green, blue
      # @raise [ShapeError]
      def initialize(data, domain: [[0.0] * 3, [1.0] * 3])
        unless data.is_a?(Numo::DFloat) && data.ndim == 2 && data.shape[1] == 3 && SIZES.cover?(data.shape[0])
          raise ShapeError, "a one-dimensional table needs a DFloat of shape [2..65536, 3], found #{data.class} of shape #{data.shape}"
        end
        @data, @domain = data, domain
        @tables = [Numo::DFloat, Numo::SFloat].to_h { |type| [type, Array.new(3) { |channel| type.cast(data[true, channel].dup) }] }.freeze
        freeze
      end

      def size = data.shape[0]

      # @return [Pointwise::Curve]
      def curve
        functions = Array.new(3) { |channel| ->(x) { read(x, channel) } }
        Pointwise::Curve.new((data.eq(data[true, 0].dup.expand_dims(1)).all? && same_domain?) ? functions.first : functions, domain: Pointwise::Curve::DIRECT)
      end

      private

      def same_domain? = domain.all? { |row| row.uniq.one? }

      def read(x, channel)
        low, high = domain[0][channel], domain[1][channel]
        position = ((x - low) * ((size - 1) / (high - low))).clip(0, size - 1)
        index = Numo::Int64.cast(position).clip(0, size - 2)
        table = @tables.fetch(x.class)[channel]
        before = table[index].dup
        before + (table[index + 1].dup - before) * (position - index)
      end
    end
  end
end
