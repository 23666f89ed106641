# frozen_string_literal: true

require "zlib"

module Mordant
  module Media
    # Portable network graphics of 8 bits whose pixels are not packed: a screen nearby has them soonest. It can be written in bands, each by
    # another process.
    #
    # Source: ISO/IEC 15948, 5, 9 to 11; RFC 1950 and RFC 1951, 3.2.4.
    module PlainPng
      # A band of rows. chunk: its IDAT; sum: Adler-32 of what that unpacks to, and size its bytes; width, height: pixels.
      Band = Struct.new(:chunk, :sum, :size, :width, :height)
      CHANNELS = 3
      BITS, TRUE_COLOUR = 8, 2
      OPENING = "\x78\x01".b.freeze # of a zlib stream that is quick to make
      CLOSING = "\x01\x00\x00\xFF\xFF".b.freeze # its last block, which is empty

      module_function

      # @param codes [Numo::UInt8] [pixels, 3]
      # @param width [Integer]
      # @param height [Integer]
      # @return [Band]
      def band(codes, width, height)
        plain = rows(codes.to_binary, width * CHANNELS)
        raw = Zlib::Deflate.new(Zlib::NO_COMPRESSION, -Zlib::MAX_WBITS)
        Band.new(chunk("IDAT", raw.deflate(plain, Zlib::SYNC_FLUSH)), Zlib.adler32(plain), plain.bytesize, width, height)
      ensure
        raw&.close
      end

      # @param bands [Array<Band>] from above, of one width
      # @return [String] a file's bytes
      def file(bands)
        sum = bands.reduce(Zlib.adler32) { |before, band| Zlib.adler32_combine(before, band.sum, band.size) }
        header = [bands.first.width, bands.sum(&:height), BITS, TRUE_COLOUR, 0, 0, 0].pack("NNC5")
        [PngText::SIGNATURE, chunk("IHDR", header), chunk("IDAT", OPENING), *bands.map(&:chunk), chunk("IDAT", CLOSING + [sum].pack("N")), chunk("IEND", "")].join
      end

      # Each begins with its filter, which is none.
      def rows(bytes, row)
        rows = String.new(capacity: bytes.bytesize + bytes.bytesize / row)
        0.step(bytes.bytesize - row, row) { |at| rows << "\0" << bytes.byteslice(at, row) }
        rows
      end
      private_class_method :rows

      def chunk(type, data) = [[data.bytesize].pack("N"), type, data, [Zlib.crc32(data, Zlib.crc32(type))].pack("N")].join
      private_class_method :chunk
    end
  end
end
