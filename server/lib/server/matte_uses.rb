# frozen_string_literal: true

module Server
  # Who uses the mattes of a recipe's steps, and whether a change of it leaves all of that standing.
  class MatteUses
    # @param recipe [Recipe]
    # @param document [Hash] that it is to have, checked
    # @raise [Mordant::ParameterError] of a matte that is used and would go, of one that refers to what is not there,
    #   or of links in a circle
    def self.check(recipe, document) = new(recipe, document).check

    # @param clip [Clip]
    # @return [Array<String>] names of cuts in which it is a matte
    def self.cuts_of(clip)
      rows(Cut.where(project_id: clip.project_id), kind: "clip", parameters: {clip: clip.id.to_s}).pluck("cuts.name").uniq
    end

    # Recipes of cuts in which a matte has a contributor.
    def self.rows(cuts, contributor)
      wanted = {steps: [{matte: {contributors: [contributor]}}]}.to_json
      Recipe.left_joins(:shot, :wash, :family).joins("JOIN cuts ON cuts.id = COALESCE(shots.cut_id, washes.cut_id, families.cut_id)").where(cuts: {id: cuts}).where("document @> ?::jsonb", wanted)
    end

    def initialize(recipe, document)
      @recipe, @document = recipe, document
    end

    def check
      used
      grade = Mordant::Grade::Recipe.new(@document)
      affected.each { |shot| shot.grade({@recipe.id => grade}) }
    end

    private

    def cut = (@recipe.shot || @recipe.wash || @recipe.family).cut

    # Steps that have lost their matte, or are gone.
    def lost
      mattes = ->(document) { document["steps"].select { |step| step.dig("matte", "contributors")&.any? }.to_h { |step| [step["id"], step["name"]] } }
      mattes[@recipe.document].except(*mattes[@document].keys)
    end

    def used
      found = lost.flat_map { |id, name| users(id).map { |user| [name, user] } }
      return if found.empty?

      raise Mordant::ParameterError.new(path: "matte of #{found.first.first}", expected: "a matte that nothing uses, to take it away; take it out there first", found: "used by #{found.map(&:last).uniq.first(6).join(", ")}")
    end

    # @return [Array<String>] shot and step
    def users(id)
      rows = MatteUses.rows(Cut.where(id: cut.id), kind: "linked", parameters: {step: id}).includes(:shot, :wash, :family)
      rows.flat_map do |row|
        document = (row == @recipe) ? @document : row.document
        names = document["steps"].select { |step| step.dig("matte", "contributors")&.any? { |part| part["kind"] == "linked" && part.dig("parameters", "step") == id } }.map { |step| step["name"] }
        names.map { |name| [(row.shot || row.wash || row.family).name, name].join(" · ") }
      end
    end

    # @return [Boolean] something in the document refers to what is beyond it
    def refers?
      return @refers if defined?(@refers)

      @refers = @document["steps"].any? { |step| step.dig("matte", "contributors")&.any? { |part| part["path"] || %w[linked clip].include?(part["kind"]) } }
    end

    # @return [Array<Shot>] whose grades have the recipe in them, where something in that refers to what is beyond it
    def affected
      return (refers? || @recipe.shot.layers.any?(&:refers?)) ? [@recipe.shot] : [] if @recipe.shot
      return [] unless refers?
      return cut.loaded_shots.select { |shot| shot.family_id == @recipe.family_id } if @recipe.family

      cut.loaded_shots.select { |shot| @recipe.wash.over?(shot) }
    end
  end
end
