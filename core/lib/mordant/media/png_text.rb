# frozen_string_literal: true

require "zlib"

module Mordant
  module Media
    # Texts inside a PNG file, under a keyword, as iTXt chunks (ISO/IEC 15948, 11.3.3.4).
    module PngText
      SIGNATURE = "\x89PNG\r\n\x1A\n".b.freeze
      TYPE = "iTXt"

      module_function

      # @param png [String] a file's bytes
      # @param text [String] UTF-8
      # @return [String] the same picture with the text before its end
      # @raise [ParameterError] of what is no PNG
      def put(png, keyword, text)
        data = "#{keyword}\0\1\0\0\0".b << Zlib.deflate(text)
        chunk = [data.bytesize].pack("N") << TYPE << data << [Zlib.crc32(TYPE + data)].pack("N")
        end_ = chunks(png).find { |type, _, _| type == "IEND" }&.at(1) or damaged("it has no end")
        png.b.insert(end_, chunk)
      end

      # @param limit [Integer] bytes the text may have
      # @return [String, nil]
      # @raise [ParameterError] of what is no PNG, or damaged
      def get(png, keyword, limit:)
        found = chunks(png).find { |type, at, length| type == TYPE && png.byteslice(at + 8, [length, 80].min).start_with?("#{keyword}\0") } or return

        _, at, length = found
        data = png.byteslice(at + 8, length)
        damaged("a text in it does not match its checksum") unless [Zlib.crc32(TYPE + data)].pack("N") == png.byteslice(at + 8 + length, 4)
        unpacked(data.delete_prefix("#{keyword}\0".b), limit)
      end

      # @return [Array(Integer, Integer)] width and height in pixels, as its header has them (11.2.2)
      # @raise [ParameterError] of what is no PNG, or damaged
      def raster(png)
        type, at, length = chunks(png).first
        damaged("it has no header") unless type == "IHDR" && length == 13
        png.byteslice(at + 8, 8).unpack("N2")
      end

      # @return [Array<Array(String, Integer, Integer)>] type, place and length of data of each chunk
      def chunks(png)
        damaged("it is no PNG file") unless png.byteslice(0, 8) == SIGNATURE
        list = []
        at = 8
        while at < png.bytesize
          length, type = png.byteslice(at, 8).unpack("Na4")
          damaged("it ends too early") unless length && type.bytesize == 4 && at + 12 + length <= png.bytesize
          list << [type, at, length]
          at += 12 + length
        end
        list
      end

      # @param data [String] after the keyword: flag, method, language, translated keyword, text
      def unpacked(data, limit)
        packed = data.getbyte(0) == 1
        text = data.byteslice(2..).split("\0".b, 3)[2].to_s
        return checked(text, limit) unless packed

        out = +"".b
        inflater = Zlib::Inflate.new
        inflater.inflate(text) { |part| (out << part).bytesize > limit && damaged("a text in it is longer than #{limit} bytes") }
        checked(out, limit)
      rescue Zlib::Error
        damaged("a text in it cannot be unpacked")
      ensure
        inflater&.close
      end

      def checked(text, limit)
        damaged("a text in it is longer than #{limit} bytes") if text.bytesize > limit
        text.dup.force_encoding("UTF-8").tap { |whole| damaged("a text in it is not UTF-8") unless whole.valid_encoding? }
      end

      def damaged(what) = raise(ParameterError.new(path: "file", expected: "a whole PNG file", found: what))
    end
  end
end
