# frozen_string_literal: true

module Server
  # A folder below which media may be read.
  class MediaRoot < Record
    # A file or folder of a root: its name, and what it is.
    Entry = Struct.new(:name, :path, :folder, :size, keyword_init: true)

    LONGEST_LISTING = 2_000

    # Puts a configured folder in, or finds it.
    #
    # @param folder [String]
    # @param label [String] what it is called on screens
    # @return [MediaRoot]
    def self.configure(folder, label: File.basename(folder))
      find_or_create_by!(path: File.realpath(folder)) { |root| root.label = label }
    end

    # @param relative [String] "" for the root itself
    # @return [String] absolute path with symlinks resolved
    # @raise [Mordant::ParameterError] when it leads out of the root or nowhere
    def resolve(relative)
      refuse(relative) if relative.include?("\0")
      full = File.realpath(File.expand_path("./#{Names.bytes(relative)}", path)).dup.force_encoding("UTF-8")
      return full if full == path || full.b.start_with?("#{path}/".b)

      refuse(relative)
    rescue Errno::ENOENT, Errno::ENOTDIR, Errno::EACCES, Errno::ELOOP, Errno::ENAMETOOLONG
      raise Mordant::ParameterError.new(path: "path", expected: "a file or folder that is there and may be read", found: relative)
    end

    # @param relative [String] a folder
    # @return [Array<Entry>] folders first; hidden ones are left out
    def list(relative)
      folder = resolve(relative)
      raise Mordant::ParameterError.new(path: "path", expected: "a folder", found: relative) unless File.directory?(folder)

      entries = Dir.children(folder).reject { |name| name.start_with?(".") }.sort.first(LONGEST_LISTING).map do |bytes|
        full = File.join(folder, bytes)
        directory = File.directory?(full)
        name = Names.text(bytes)
        Entry.new(name: Names.shown(name), path: [relative, name].reject(&:empty?).join("/"), folder: directory,
          size: directory ? nil : File.size?(full).to_i)
      end
      entries.sort_by { |entry| [entry.folder ? 0 : 1, entry.name] }
    end

    def to_h = {id:, label:}

    private

    def refuse(relative)
      raise Mordant::ParameterError.new(path: "path", expected: "a path below the media folder #{label}", found: relative)
    end
  end
end
