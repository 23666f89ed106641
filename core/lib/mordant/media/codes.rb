# frozen_string_literal: true

module Mordant
  module Media
    # A decoded picture as its file has it: 16-bit full-range code values.
    #
    # Shape: rgb is a Numo::UInt16 [3, width * height], row-major, top row first.
    class Codes
      attr_reader :rgb, :width, :height

      # @raise [ShapeError]
      def initialize(rgb, width:, height:)
        unless rgb.is_a?(Numo::UInt16) && rgb.shape == [3, width * height]
          raise ShapeError, "expected a UInt16 of shape [3, #{width * height}], found #{rgb.class} of shape #{rgb.shape}"
        end
        @rgb, @width, @height = rgb, width, height
      end

      # @param interleaved [String] 16-bit little-endian red, green, blue, pixel by pixel
      def self.from_interleaved(interleaved, width:, height:)
        pixels = Numo::UInt16.from_binary(interleaved, [width * height, 3])
        new(pixels.transpose.dup, width:, height:)
      end

      # @param planes [String] 16-bit little-endian green, blue, red, plane by plane
      def self.from_planes(planes, width:, height:)
        size, rgb = width * height, Numo::UInt16.new(3, width * height).allocate
        [2, 0, 1].each_with_index do |plane, channel|
          codes = Numo::UInt16.from_binary(planes.byteslice(plane * size * 2, size * 2))
          rgb[channel, true] = codes
          codes.free
        end
        new(rgb, width:, height:)
      end

      # @return [String] as .from_planes takes them
      def planes = [1, 2, 0].map { |channel| rgb[channel, true].to_binary }.join

      # The codes that occur, for a look-up table that need hold no others.
      #
      # @return [Array<Array<Float>>] lowest and highest red, green, blue as shares of
      #   the full range; apart by at least one 10-bit code
      def domain
        @domain ||= [rgb.min(axis: 1), rgb.max(axis: 1)].map { |ends| ends.to_a.map { |code| code / 65_535.0 } }
          .then { |low, high| [low, low.zip(high).map { |a, b| [b, a + 1.0 / 1023].max }] }
      end

      # A part of the picture.
      #
      # @param region [Array<Float>] left, top, width and height as shares of the picture;
      #   what lies outside of it is left out
      # @return [Codes] of at least one pixel
      # @raise [ParameterError]
      def crop(region)
        columns, rows = Region.pixels(region, width, height)
        part = rgb.reshape(3, height, width)[true, rows, columns].dup
        Codes.new(part.reshape(3, rows.size * columns.size), width: columns.size, height: rows.size)
      end

      # @param rgb [Numo::SFloat] [3, n] values on this raster
      # @return [Frame]
      def to_frame(rgb, encoding:) = Frame.new(rgb, width:, height:, encoding:)

      # @param encoding [String] what the codes are in
      # @return [Frame] codes / 65_535
      def frame(encoding:)
        values = Numo::SFloat.cast(rgb)
        to_frame((values.inplace * (1.0 / 65_535)).out_of_place!, encoding:)
      end

      # The mean of whole blocks, as Frame#reduce.
      #
      # @return [Codes]
      def reduce(by)
        return self if by == 1

        w, h = width / by, height / by
        blocks = rgb.reshape(3, height, width)[true, 0...(h * by), 0...(w * by)].reshape(3, h, by, w, by)
        sum = Numo::UInt32.new(3, h, w).fill((by * by) / 2)
        by.times { |j| by.times { |i| (sum.inplace + blocks[true, true, j, true, i]).out_of_place! } }
        mean = ((by * by).digits(2).sum == 1) ? sum >> (by * by).bit_length.pred : sum / (by * by)
        Codes.new(Numo::UInt16.cast(mean.reshape(3, w * h)), width: w, height: h)
      end
    end
  end
end
