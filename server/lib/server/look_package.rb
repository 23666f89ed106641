# frozen_string_literal: true

module Server
  # The grades of a cut to be taken elsewhere in one act: look-up tables of each shot or
  # family, ASC CDLs of all, and a listing of what neither holds.
  class LookPackage
    SIZES = [17, 33, 65].freeze
    FORMATS = %w[cube clf].freeze
    LAYERS = %w[ground own finish washes].freeze
    PER = %w[shot family].freeze

    # @param cut [Cut]
    # @param size [Integer] nodes on an edge
    # @param formats [Array<String>]
    # @param layers [Array<String>] whose steps are taken
    # @param per [String] "shot", or "family": that of each family's hero, and of shots in none
    # @param view [Mordant::Grade::View, nil] that goes in; nil: tables return log codes of the working space
    # @raise [Mordant::ParameterError]
    def initialize(cut, size:, formats:, layers:, per:, view: nil)
      @cut, @view = cut, view
      @size = among("size", size, SIZES)
      @formats = formats.map { |format| among("format", format, FORMATS) }
      @layers = layers.map { |layer| among("layers", layer, LAYERS) }
      @per = among("per", per, PER)
    end

    # @return [String] of the folder in it
    def name = "#{[@cut.project.name, @cut.name].join("_").gsub(/[^\p{L}\p{N}._-]+/, "_")}_looks"

    # @return [Integer] of shots in it
    def count = shots.size

    # @yieldparam path [String] below name
    # @yieldparam bytes [String]
    # @yieldparam done [Integer] shots whose tables there are
    # @raise [Mordant::Error]
    def each_file
      listing = []
      shots.each_with_index do |shot, index|
        recipe, taken = recipe(shot)
        listing << line(shot, recipe, taken)
        tables(shot, recipe, taken).each { |extension, text| yield "luts/#{stem(shot)}.#{extension}", text, index }
      end
      yield "#{@cut.name.gsub(/[^\p{L}\p{N}._-]+/, "_")}.ccc", cdls(listing), count
      yield "listing.txt", "#{listing.join("\n")}\n", count
    end

    private

    # @return [Enumerator] of format and text, made as they are asked for
    def tables(shot, recipe, taken)
      bake = Mordant::Grade::Bake.new(plan: @cut.project.plan(recipe.within_luts, shot.clip.encoding), output: @cut.project.output(@cut.renditions.alone(returned, shot)), size: @size)
      title = "#{@cut.project.name} #{shot.name}: #{shot.clip.encoding} to #{returned}#{", #{taken}" if taken}"
      text = {"cube" => -> { Mordant::Lut::Cube.write(bake.table(title:)) },
              "clf" => -> { Mordant::Lut::Clf.write(bake.process_list(id: stem(shot), title:, input: Mordant::Colour.encoding(shot.clip.encoding).label, result: returned.to_s)) }}
      @formats.lazy.map { |format| [format, text.fetch(format).call] }
    end

    def among(name, value, values)
      values.include?(value) ? value : raise(Mordant::ParameterError.new(path: name, expected: values.join(", "), found: value))
    end

    def shots = @shots ||= taken

    def taken
      all = @cut.loaded_shots.select { |shot| shot.clip.assigned? }
      return all if @per == "shot"

      heroes = @cut.loaded_families.map(&:hero)
      all.select { |shot| shot.family_id.nil? || heroes.include?(shot.id) }
    end

    def stem(shot) = [(@per == "family") ? family(shot)&.name : nil, shot.name].compact.join("_").gsub(/[^\p{L}\p{N}._-]+/, "_")

    def family(shot) = @cut.loaded_families.find { |one| one.id == shot.family_id }

    def returned = @view || Mordant::Grade::View.new(encoding: @cut.project.space.log)

    # @return [Array(Mordant::Grade::Recipe, String)] see Shot#standing
    def recipe(shot)
      shared = family(shot)
      parts = {"ground" => [shared&.at("ground")], "own" => [shot.recipe], "finish" => [shared&.at("finish")], "washes" => shot.washes.select(&:enabled).map(&:recipe)}
      first, *others = LAYERS.select { |layer| @layers.include?(layer) }.flat_map { |layer| parts.fetch(layer) }.compact.map { |row| shot.timed(row, row.grade) }
      shot.standing(first ? first.followed_by(*others) : Mordant::Grade::Recipe.new(Mordant::Grade::Recipe::EMPTY_DOCUMENT))
    end

    def line(shot, recipe, taken)
      left = recipe.beyond_luts.map(&:name)
      steps = recipe.within_luts.entries.select(&:acts?).map(&:name)
      "#{shot.name}: #{steps.empty? ? "no steps" : steps.join(", ")}#{", #{taken}" if taken}#{"; left out, as no table can hold it: #{left.join(", ")}" unless left.empty?}"
    end

    def cdls(listing)
      corrections = shots.map do |shot|
        recipe, taken = recipe(shot)
        found = Mordant::Grade::CDLExport.new(recipe:, space: @cut.project.space, id: shot.name, description: "#{@cut.project.name}, in #{@cut.project.space.label}#{", #{taken}" if taken}")
        listing << "#{shot.name}: CDL #{found.exact? ? "exact" : "fitted, at worst #{format("%.1f", found.error.worst * 1023)} codes of 10 bits off"}"
        found.cdl
      end
      Mordant::Colour::CDLDocument.write(corrections)
    end
  end
end
