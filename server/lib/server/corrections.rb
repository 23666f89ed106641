# frozen_string_literal: true

require "tempfile"

module Server
  # CDLs of a file, and the shots they belong to.
  class Corrections
    # A correction and the names it goes by.
    Named = Struct.new(:names, :cdl, keyword_init: true)

    # @param name [String] of the file; its extension says what it is
    # @param text [String]
    # @return [Corrections]
    # @raise [Mordant::FormatError, Mordant::ParameterError]
    def self.read(name, text)
      kind = File.extname(name).downcase
      known = Mordant::Colour::CDLDocument::ROOTS.keys.map { |key| ".#{key}" } + [".edl"]
      raise Mordant::ParameterError.new(path: "name", expected: "a file named #{known.join(", ")}", found: name) unless known.include?(kind)

      Tempfile.create(["corrections", kind]) do |file|
        file.write(text)
        file.flush
        new((kind == ".edl") ? of_list(file.path) : of_document(file.path))
      end
    rescue Mordant::FormatError => e
      raise Mordant::FormatError.new(path: name, line: e.line, expected: e.expected, found: e.found)
    end

    def self.of_list(path)
      Mordant::Cut::EDLCorrections.read(path).map { |one| Named.new(names: [one.clip_name, one.reel, one.event].compact, cdl: one.cdl) }
    end

    def self.of_document(path)
      Mordant::Colour::CDLDocument.read(path).map { |cdl| Named.new(names: [cdl.id].compact, cdl:) }
    end
    private_class_method :of_list, :of_document

    # @param list [Array<Named>]
    def initialize(list)
      @list = list
    end

    # Adds a step to every shot that has a correction; a single one is for all of them.
    #
    # @return [Hash] recipes changed, and the shots nothing was found for
    # @raise [Mordant::ParameterError] when nothing fits
    def put_on(cut, shots)
      found = shots.to_h { |shot| [shot, of(shot)] }.compact
      raise Mordant::ParameterError.new(path: "name", expected: "corrections named after the shots, clips or reels of this cut", found: @list.flat_map(&:names).first(5).join(", ")) if found.empty?

      steps = found.transform_values { |cdl| [{"kind" => "cdl", "parameters" => Mordant::Steps::CDL.parameters_of(cdl)}] }
      recipes = Recipe.paste(cut.project, steps, words: "CDL on #{found.size} #{(found.size == 1) ? "shot" : "shots"}")
      {recipes: recipes.map(&:to_h), without: (shots - found.keys).map(&:name)}
    end

    private

    # By the shot's name, its clip's, or its reel where that is one correction's alone.
    def of(shot)
      return @list.first.cdl if @list.one?

      clip = File.basename(shot.clip.path)
      [shot.name, clip, File.basename(clip, ".*"), shot.clip.reel].compact.each do |name|
        fits = @list.select { |one| one.names.any? { |other| other.casecmp?(name) } }
        return fits.first.cdl if fits.one?
      end
      nil
    end
  end
end
