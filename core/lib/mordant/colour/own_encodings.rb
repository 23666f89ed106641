# frozen_string_literal: true

module Mordant
  module Colour
    # The encodings described in a person's library, read again when a file changes.
    class OwnEncodings
      MOST = 500 # files read

      # @param folder [#call] answers the folder's path
      def initialize(folder = -> { Library.encodings })
        @folder = folder
        @read = {}
        @lock = Mutex.new
      end

      # @return [Encoding, nil]
      # @raise [FormatError] when the file of that name is at fault
      def fetch(id)
        path = File.join(@folder.call, "#{id}#{EncodingFile::EXTENSION}")
        return unless id.to_s.match?(/\A[a-z0-9][a-z0-9.-]*\z/) && File.file?(path)

        found = read(path)
        found.is_a?(Encoding) ? found : raise(found)
      end

      # @return [Array, nil] changes when the file of that name does; nil where there is none
      def stamp(id)
        stat = File.stat(File.join(@folder.call, "#{id}#{EncodingFile::EXTENSION}"))
        [id, stat.size, stat.mtime.to_r] if stat.file?
      rescue Errno::ENOENT
        nil
      end

      # @return [Array<Encoding>] of the files without fault
      def all = contents.grep(Encoding)

      # @return [Array<Error>] of the others
      def faults = contents.grep(Error)

      private

      def contents
        Library.files(@folder.call, EncodingFile::EXTENSION).first(MOST).map { |path| read(path) }
      end

      def read(path)
        stat = File.stat(path)
        key = [path, stat.mtime, stat.size]
        @lock.synchronize { @read[key] ||= made(path) }
      rescue Errno::ENOENT
        MediaError.new(path, "it has been taken away")
      end

      def made(path)
        return FormatError.new(path: Library.shown(path), line: 1, expected: "a file name in UTF-8", found: File.basename(path)) unless path.valid_encoding?

        taken = Encoding.built_in?(File.basename(path, EncodingFile::EXTENSION))
        return FormatError.new(path:, line: 1, expected: "an id that no encoding has yet", found: File.basename(path)) if taken

        EncodingFile.read(path)
      rescue Error => e
        e
      rescue SystemCallError => e
        MediaError.new(path, "it cannot be read: #{e.message}")
      end
    end
  end
end
