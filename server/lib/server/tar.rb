# frozen_string_literal: true

require "rubygems/package"

module Server
  # A tar archive that is written as it is sent (POSIX.1-2001 ustar). A path that has no place
  # in its header goes before it as an extended header record (the same, pax Interchange Format).
  class Tar
    MODE = 0o644
    LONGEST = 100 # bytes of a name in a header

    # @param out [#<<] takes bytes
    def self.write(out)
      tar = new(out)
      yield tar
      tar.close
      out
    end

    def initialize(out)
      @writer = Gem::Package::TarWriter.new(@chunks = Chunks.new(out))
    end

    # @param path [String] UTF-8, of any length
    # @param bytes [String]
    def add(path, bytes)
      short = path
      unless fits?(path)
        extend_header(path)
        short = path.b[-LONGEST..]
      end
      @writer.add_file_simple(short, MODE, bytes.bytesize) { |io| io.write(bytes) }
    end

    def close = @writer.close

    private

    def fits?(path)
      @writer.split_name(path)
      true
    rescue Gem::Package::TooLongFileName
      false
    end

    # The record's length counts its own digits too.
    def extend_header(path)
      rest = " path=#{path}\n"
      length = rest.bytesize + 1
      length += 1 until length == rest.bytesize + length.to_s.length
      record = "#{length}#{rest}".b
      header = Gem::Package::TarHeader.new(name: "pax", prefix: "", mode: MODE, size: record.bytesize, typeflag: "x")
      @chunks.write(header.to_s + record + "\0" * (-record.bytesize % 512))
    end

    # A stream that can only be written to, as the tar writer wants it.
    class Chunks
      attr_reader :pos

      def initialize(out)
        @out = out
        @pos = 0
      end

      def write(data)
        @out << data
        @pos += data.bytesize
        data.bytesize
      end
    end
  end
end
