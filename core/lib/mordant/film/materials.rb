# frozen_string_literal: true

module Mordant
  module Film
    # The materials there are: those that come along, and files of a person's library.
    module Materials
      SHIPPED = File.expand_path("../../../materials", __dir__)
      LONGEST_ID = 60

      @read = {}

      class << self
        # @param kind [String, nil] one of Material::KINDS
        # @return [Array<Material>] by their names, without those at fault
        def all(kind = nil) = ids.filter_map { |id| found(id) }.select { |one| kind.nil? || one.kind == kind }.sort_by(&:name)

        # @return [Array<Error>] of files that cannot be read
        def faults = ids.filter_map { |id| fault(id) }

        # @param id [String]
        # @param kind [String]
        # @return [Material]
        # @raise [MediaError] of one that is not there, or of another kind; FormatError of a faulty file
        def fetch(id, kind)
          material = found(id) || Material.read(path(id))
          raise MediaError.new(id, "this material is a #{material.kind}, not a #{kind}; choose another") unless material.kind == kind

          material
        end

        # @return [Boolean] it may name a material
        def id?(text) = text.is_a?(String) && text.length.between?(1, LONGEST_ID) && text.match?(/\A[\w][\w -]*\z/)

        # @return [Array, nil] changes when the file does; nil when it is not there
        def stamp(id)
          stat = File.stat(path(id))
          [id, stat.size, stat.mtime.to_r] if stat.file?
        rescue Errno::ENOENT
          nil
        end

        private

        def own = File.join(Mordant::Library.root, "materials")

        def path(id) = [own, SHIPPED].map { |folder| File.join(folder, "#{id}.json") }.then { |paths| paths.find { |path| File.file?(path) } || paths.last }

        def ids = [own, SHIPPED].flat_map { |folder| Dir.glob("*.json", base: folder) }.map { |name| name.delete_suffix(".json") }.select { |id| id?(id) }.uniq.sort

        def found(id)
          fault(id)
          @read[stamp(id)]
        end

        # Read once for each state of the file.
        def fault(id)
          key = stamp(id) or return
          @read[key] = Material.read(path(id)) unless @read.key?(key)
          nil
        rescue FormatError => e
          e
        end
      end
    end
  end
end
