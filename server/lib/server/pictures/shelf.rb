# frozen_string_literal: true

require "fileutils"

module Server
  module Pictures
    # Files that may be deleted at any time, held to a size: what was written longest ago
    # goes first.
    class Shelf
      SWEEP_EVERY = 64 # writes

      attr_reader :folder

      # @param folder [String]
      # @param extension [String] of its files, in folders one deep
      # @param limit [Integer] bytes
      def initialize(folder, extension, limit:)
        @folder, @extension, @limit = folder, extension, limit
        @writes = 0
      end

      # @param name [String] folder and name, without extension
      def path(name) = File.join(folder, "#{name}#{@extension}")

      def include?(name) = File.exist?(path(name))

      # @return [Array<String>] of all that lie here just now, to be looked at once for many
      def names = Dir.glob("*/*#{@extension}", base: folder).map { |path| path.delete_suffix(@extension) }

      # @return [String, nil] binary
      def read(name)
        File.binread(path(name))
      rescue Errno::ENOENT
        nil
      end

      # Whole or not at all; a full disk keeps nothing, and says so in the log.
      def write(name, data)
        target = path(name)
        FileUtils.mkdir_p(File.dirname(target))
        partial = "#{target}.#{Process.pid}.part"
        File.binwrite(partial, data)
        File.rename(partial, target)
        sweep if ((@writes += 1) % SWEEP_EVERY).zero?
      rescue Errno::ENOSPC, Errno::EDQUOT => e
        FileUtils.rm_f(partial)
        warn("cache: #{e.message}; files are not kept")
      end

      # Deletes until the limit holds.
      def sweep
        files = Dir.glob(File.join(folder, "*", "*#{@extension}")).filter_map do |path|
          stat = File.stat(path)
          [stat.mtime, stat.size, path]
        rescue Errno::ENOENT
          nil # another process was quicker
        end
        excess = files.sum { |_, size, _| size } - @limit
        files.sort.each do |_, size, path|
          break if excess <= 0

          FileUtils.rm_f(path)
          excess -= size
        end
      end

      # For one at a time of all processes that write into a folder here.
      #
      # @param name [String] of the folder
      # @return [File, nil] to be locked; nil where there is no room for it
      def lock(name)
        FileUtils.mkdir_p(File.join(folder, name))
        File.open(File.join(folder, name, "lock"), File::RDWR | File::CREAT)
      rescue Errno::ENOSPC, Errno::EDQUOT
        nil
      end
    end
  end
end
