# frozen_string_literal: true

require "fiddle"
require "zlib"

module Mordant
  module Media
    # Packs bytes as zlib does, by libdeflate's quickest level where that library is here, which takes
    # half the time and no more room; else by zlib's runs of equal bytes. One for each thread.
    #
    # Source: RFC 1950 and 1951; libdeflate.h of libdeflate 1.14.
    class Deflater
      LIBRARY = "libdeflate.so.0"
      LEVEL = 1
      POINTER, WHOLE, SIZE = Fiddle::TYPE_VOIDP, Fiddle::TYPE_INT, Fiddle::TYPE_SIZE_T

      # alloc and compress: Fiddle::Function; free: its address
      Functions = Struct.new(:alloc, :compress, :free)

      # @return [Functions, nil] nil where the library is not installed
      def self.functions
        return @functions if defined?(@functions)

        library = Fiddle.dlopen(LIBRARY)
        @functions = Functions.new(Fiddle::Function.new(library["libdeflate_alloc_compressor"], [WHOLE], POINTER),
          Fiddle::Function.new(library["libdeflate_zlib_compress"], [POINTER, POINTER, SIZE, POINTER, SIZE], SIZE), library["libdeflate_free_compressor"])
      rescue Fiddle::DLError
        @functions = nil
      end

      # @param plain [String]
      # @return [String, nil] zlib's format; nil where it is no smaller than the plain bytes
      # @raise [NoMemoryError]
      def smaller(plain)
        packed = self.class.functions ? quickly(plain) : Zlib::Deflate.new(LEVEL, Zlib::MAX_WBITS, Zlib::MAX_MEM_LEVEL, Zlib::RLE).deflate(plain, Zlib::FINISH)
        packed if packed && packed.bytesize < plain.bytesize
      end

      private

      # What does not fit is none: the room is that of the plain bytes.
      def quickly(plain)
        @room = "\0".b * plain.bytesize unless @room&.bytesize == plain.bytesize
        size = self.class.functions.compress.call(compressor, plain, plain.bytesize, @room, @room.bytesize)
        @room.byteslice(0, size) if size.positive?
      end

      # Given back when this is collected.
      def compressor
        @compressor ||= begin
          made = self.class.functions.alloc.call(LEVEL)
          raise NoMemoryError, "libdeflate got no memory" if made.null?

          Fiddle::Pointer.new(made.to_i, 0, Fiddle::Function.new(self.class.functions.free, [POINTER], Fiddle::TYPE_VOID))
        end
      end
    end
  end
end
