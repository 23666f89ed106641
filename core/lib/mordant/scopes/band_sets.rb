# frozen_string_literal: true

require "digest"
require "fileutils"

module Mordant
  module Scopes
    # Sets of bands by name: ours, one JSON file each in core/bands, and a person's in the
    # library's folder of that name.
    module BandSets
      OURS = File.expand_path("../../../bands", __dir__)
      MOST = 200 # of a person
      LARGEST_FILE = 64 * 1024 # bytes

      module_function

      # @return [Array<Hash>] documents with "own", ours first; files that are no set are left out
      def all = read(OURS).map { |set| set.to_h.merge("own" => false) } + read(folder).map { |set| set.to_h.merge("own" => true) }

      # @param document [Hash] see Bands; one of the person's with its name is replaced
      # @return [Bands]
      # @raise [ParameterError]
      def keep(document)
        set = Bands.new(document)
        if read(OURS).any? { |one| one.name == set.name }
          raise ParameterError.new(path: "bands.name", expected: "a name of your own", found: set.name)
        end
        raise ParameterError.new(path: "bands", expected: "at most #{MOST} sets", found: MOST) if read(folder).size >= MOST && !File.exist?(path(set.name))

        write(path(set.name), JSON.pretty_generate(set.to_h))
        set
      end

      def write(target, text)
        FileUtils.mkdir_p(folder)
        partial = "#{target}.#{Process.pid}.part"
        File.write(partial, text)
        File.rename(partial, target)
      end

      # @param name [String]
      def drop(name) = FileUtils.rm_f(path(name))

      def folder = Library.bands

      def path(name) = File.join(folder, "#{Digest::SHA256.hexdigest(name)[0, 16]}.json")

      # @return [Array<Error>] what is wrong with the person's files that are no set
      def faults = files(folder).map { |path| one(path) }.grep(Error)

      def read(folder) = files(folder).map { |path| one(path) }.grep(Bands)

      def files(folder) = Library.files(folder, ".json").first(MOST)

      # @return [Bands, Error]
      def one(path)
        raise MediaError.new(path, "larger than #{LARGEST_FILE / 1024} kB") if File.size(path) > LARGEST_FILE

        Bands.new(JSON.parse(File.read(path, encoding: "UTF-8"), max_nesting: 8), path: Library.shown(File.basename(path)))
      rescue JSON::ParserError, EncodingError => e
        ParameterError.new(path: Library.shown(File.basename(path)), expected: "JSON in UTF-8", found: Library.shown(e.message)[0, 80])
      rescue SystemCallError => e
        MediaError.new(Library.shown(path), "it cannot be read: #{e.message}")
      rescue Error => e
        e
      end
    end
  end
end
