# frozen_string_literal: true

require "zlib"

module Mordant
  module Media
    # Portable network graphics of 8 bits whose pixels are not packed: a screen nearby has them soonest.
    #
    # Source: ISO/IEC 15948, 5, 9 to 11; RFC 1950 and RFC 1951, 3.2.4.
    module PlainPng
      CHANNELS = 3
      BLOCK = 65_535 # bytes that one may hold
      HEAD = 5 # bytes before those
      BITS, TRUE_COLOUR = 8, 2
      OPENING = "\x78\x01".b.freeze # of a zlib stream that is quick to make
      CLOSING = "\x01\x00\x00\xFF\xFF".b.freeze # its last block, which is empty

      module_function

      # @param frame [Frame] display code values; held to 0.0..1.0, NaN becomes 0
      # @param dither [Deliver::Dither, nil]
      # @return [String] a file's bytes
      def file(frame, dither: nil)
        row = 1 + CHANNELS * frame.width
        rows = BLOCK / row
        block = rows.positive? ? rows * row : BLOCK
        quick = dither.nil? && PngRows.worth?(frame.width, frame.height)
        blocks, sum = quick ? PngRows.call(frame, rows) : written(frame, dither, row, block)
        header = [frame.width, frame.height, BITS, TRUE_COLOUR, 0, 0, 0].pack("NNC5")
        [PngText::SIGNATURE, chunk("IHDR", header), chunk("IDAT", OPENING), chunk("IDAT", blocks), chunk("IDAT", CLOSING + [sum].pack("N")), chunk("IEND", "")].join.tap { blocks.clear }
      end

      # @param row [Integer] bytes
      # @param block [Integer] bytes, at most BLOCK
      # @return [Array(String, Integer)] as PngRows.call
      def written(frame, dither, row, block)
        plain = rows(Integers.interleave(frame, BITS, dither:).to_binary, row - 1)
        blocks = 0.step(plain.bytesize - 1, block).map { |at| plain.byteslice(at, block).then { |part| [0, part.bytesize, part.bytesize ^ BLOCK].pack("Cvv") << part } }
        [blocks.join, Zlib.adler32(plain)]
      end
      private_class_method :written

      # Each begins with its filter, which is none.
      def rows(bytes, row)
        rows = String.new(capacity: bytes.bytesize + bytes.bytesize / row)
        0.step(bytes.bytesize - row, row) { |at| rows << "\0" << bytes.byteslice(at, row) }
        rows
      end
      private_class_method :rows

      # @return [Array<String>] its parts
      def chunk(type, data) = [[data.bytesize].pack("N"), type, data, [Zlib.crc32(data, Zlib.crc32(type))].pack("N")]
      private_class_method :chunk
    end
  end
end
