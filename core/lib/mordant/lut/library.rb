# frozen_string_literal: true

require "fileutils"

module Mordant
  module Lut
    # The LUT files of a person's library, in folders.
    module Library
      READERS = {".cube" => Cube, ".clf" => Clf}.freeze
      MOST = 5000 # files listed
      KEPT = 32 # files held in memory
      LONGEST = 1000 # bytes of a path
      LONGEST_PART = 200 # bytes of a name

      @read = {}
      @lock = Mutex.new

      class << self
        # @return [Array<String>] paths below the library, folders and names in order
        def list
          root = Mordant::Library.luts
          Dir.glob("**/*", base: root).select { |path| path?(path) && File.file?(File.join(root, path)) }.sort.first(MOST)
        end

        # @return [Array<Error>] files that cannot be named here
        def faults
          Dir.glob("**/*", base: Mordant::Library.luts).reject(&:valid_encoding?).first(MOST)
            .map { |path| FormatError.new(path: Mordant::Library.shown(path), line: 1, expected: "a file name in UTF-8", found: path) }
        end

        # @return [Boolean] it may name a file of the library
        def path?(path)
          path.valid_encoding? && path.bytesize <= LONGEST && path.split("/").all? { |part| part.bytesize <= LONGEST_PART } && !path.match?(/[[:cntrl:]\\]/) && READERS.key?(File.extname(path).downcase) && !path.start_with?("/") &&
            path.split("/", -1).none? { |part| part.empty? || part.start_with?(".") }
        end

        # @param path [String] below the library
        # @return [Table, ProcessList]
        # @raise [MediaError, FormatError, ParameterError]
        def fetch(path)
          key = stamp(path)
          raise MediaError.new(path, "this LUT is not in the library any more; put it back or choose another") unless key

          @lock.synchronize { @read.delete(key) }.then do |held|
            table = held || READERS.fetch(File.extname(path).downcase).read(absolute(path))
            @lock.synchronize do
              @read[key] = table
              @read.shift while @read.size > KEPT
            end
            table
          end
        end

        # @return [Array, nil] changes when the file does; nil when it is not there
        def stamp(path)
          stat = File.stat(absolute(path))
          [path, stat.size, stat.mtime.to_r] if stat.file?
        rescue Errno::ENOENT, Errno::ENOTDIR, Errno::ENAMETOOLONG
          nil
        end

        # Puts a file in, once it has been read without fault.
        #
        # @param path [String] below the library
        # @param data [String]
        # @return [Table, ProcessList]
        # @raise [FormatError] of a faulty file; ParameterError of a path, or of one that is taken
        def store(path, data)
          target = absolute(path)
          raise ParameterError.new(path: "path", expected: "a name no LUT has yet; nothing is overwritten", found: path) if File.exist?(target)

          begin
            FileUtils.mkdir_p(File.dirname(target))
          rescue Errno::EEXIST, Errno::ENOTDIR
            raise ParameterError.new(path: "path", expected: "a folder, not a file, to put it in", found: path)
          end
          partial = File.join(File.dirname(target), ".#{Process.pid}.#{File.basename(target)}")
          File.binwrite(partial, data)
          table = checked(partial, path)
          File.rename(partial, target)
          table
        ensure
          FileUtils.rm_f(partial) if partial
        end

        private

        # @raise [FormatError] that names the file as the person does
        def checked(partial, path)
          READERS.fetch(File.extname(path).downcase).read(partial)
        rescue FormatError => e
          raise FormatError.new(path:, line: e.line, expected: e.expected, found: e.found)
        end

        # A file below the library, or a place for one: no link on the way leads out.
        def absolute(path)
          raise ParameterError.new(path: "path", expected: "#{READERS.keys.join(" or ")} below the library", found: path) unless path?(path)

          full = File.join(Mordant::Library.luts, path)
          known = full
          known = File.dirname(known) until File.exist?(known) || File.symlink?(known)
          root = File.exist?(Mordant::Library.luts) ? File.realpath(Mordant::Library.luts) : nil
          inside = root.nil? || (File.exist?(known) && "#{File.realpath(known)}/".start_with?("#{root}/"))
          inside ? full : raise(ParameterError.new(path: "path", expected: "a file within the library", found: path))
        end
      end
    end
  end
end
