# frozen_string_literal: true

module Server
  # A version of a shot's grade, or the steps of a wash or a family. Its revision grows with every
  # accepted change.
  class Recipe < Record
    include Undoable

    KEPT = %w[document].freeze
    FIRST = "First light"

    # A write that was made on top of something older; answered with 409.
    class Conflict < Mordant::Error
      attr_reader :recipe

      def initialize(recipe)
        @recipe = recipe
        super("the recipe has changed meanwhile; look at its present state and make the change again")
      end
    end

    belongs_to :shot, optional: true
    belongs_to :wash, optional: true
    belongs_to :family, optional: true
    belongs_to :corrected, class_name: "Server::Shot", foreign_key: :corrects_id, optional: true, inverse_of: :corrections

    # Puts copies of steps on the recipes of shots, as one change.
    #
    # @param project [Project]
    # @param steps [Hash{Shot => Array<Hash>}] as in documents; they are given ids of their own
    # @param replace [Boolean] instead of what is there, not after it
    # @param along [Hash{String => Array<Hash>}] spans and bundles of the recipe that they were copied from
    # @param from [Integer, nil] id of the shot that they were copied from; mattes stay linked to its steps
    # @param words [String] what was done
    # @return [Array<Recipe>] as stored
    # @raise [Mordant::ParameterError] and nothing is changed
    def self.paste(project, steps, words:, replace: false, along: {}, from: nil)
      transaction do
        project.lock!
        wanted = steps.transform_keys { |shot| shot.recipe.id }
        recipes = where(id: wanted.keys).order(:id).lock.to_a
        documents = recipes.to_h { |recipe| [recipe, recipe.with_steps(wanted.fetch(recipe.id), replace:, along:, from:)] }
        documents.each { |recipe, document| MatteUses.check(recipe, document) }
        Change.record(project, words:, states: documents.to_h { |recipe, document| [recipe, {"document" => document}] })
        recipes
      end
    end

    # @return [Hash] the document with copies of steps and of the spans and bundles that they name, checked
    # @raise [Mordant::ParameterError]
    def with_steps(steps, replace: false, along: {}, from: nil)
      raise Mordant::ParameterError.new(path: "steps", expected: "a list of steps", found: steps) unless steps.is_a?(Array) && steps.all?(Hash)

      own = replace ? {"steps" => []} : document
      brought, names = brought_spans(own.fetch("spans", []), Mordant::Grade::Span.list(along.fetch("spans", [])).map(&:to_h), steps.flat_map { |step| Array(step["spans"]) })
      bundles, kept = brought_bundles(Mordant::Grade::Bundle.list(along.fetch("bundles", [])).map(&:to_h), steps.filter_map { |step| step["bundle"] })
      named = steps.map { SecureRandom.uuid }
      ids = steps.map { |step| step["id"] }.zip(named).to_h
      fresh = steps.zip(named).map do |step, id|
        bound = {"bundle" => kept[step["bundle"]], "spans" => (step["spans"].map { |one| names.fetch(one, one) } if step["spans"].is_a?(Array))}.compact
        Recipe.relinked(step, ids, from).except("bundle").merge("id" => id, **bound)
      end
      Mordant::Grade::Recipe.new("steps" => own["steps"] + fresh, "spans" => own.fetch("spans", []) + brought, "bundles" => own.fetch("bundles", []) + bundles).to_h
    end

    # Spans that copied steps name, with ids of their own; one that is there already is not brought twice.
    #
    # @return [Array(Array<Hash>, Hash{String => String})] new ones, and ids by those they were copied from
    def brought_spans(own, spans, named)
      same = own.to_h { |span| [span.except("id"), span["id"]] }
      names = spans.select { |span| named.include?(span["id"]) }.to_h { |span| [span["id"], same[span.except("id")] || SecureRandom.uuid] }
      [spans.filter_map { |span| span.merge("id" => names[span["id"]]) if names.key?(span["id"]) && !same.key?(span.except("id")) }, names]
    end
    private :brought_spans

    # Bundles that copied steps are kept in, with ids of their own; steps of any other are copied as single ones.
    #
    # @return [Array(Array<Hash>, Hash{String => String})] new ones, and ids by those they were copied from
    def brought_bundles(bundles, named)
      names = bundles.select { |bundle| named.include?(bundle["id"]) }.to_h { |bundle| [bundle["id"], SecureRandom.uuid] }
      [bundles.filter_map { |bundle| bundle.merge("id" => names[bundle["id"]]) if names.key?(bundle["id"]) }, names]
    end
    private :brought_bundles

    # A copied step whose mattes are linked to the copies of those it came with, and else to where those are.
    #
    # @param ids [Hash{String => String}] of copies
    # @param from [Integer, nil] id of the shot
    def self.relinked(step, ids, from)
      parts = step["matte"]["contributors"] if step["matte"].is_a?(Hash)
      return step unless parts.is_a?(Array)

      linked = parts.map do |part|
        own = part.is_a?(Hash) && part["kind"] == "linked" && part["parameters"].is_a?(Hash) && part.dig("parameters", "shot").to_s.empty?
        next part unless own

        target = part.dig("parameters", "step")
        part.merge("parameters" => part["parameters"].merge((ids.key?(target) || from.nil?) ? {"step" => ids.fetch(target, target)} : {"shot" => from.to_s}))
      end
      step.merge("matte" => step["matte"].merge("contributors" => linked))
    end

    # Read once, as long as files that its steps read are the same.
    #
    # @return [Mordant::Grade::Recipe]
    def grade
      from, made, stamps = @grade
      return made if from&.equal?(document) && made.stamps == stamps

      kind.new(document).tap { |read| @grade = [document, read, read.stamps] }
    end

    # @return [Class] of its document
    def kind = corrects_id ? Mordant::Rendition::Corrections : Mordant::Grade::Recipe

    # @return [Boolean] something in it changes from frame to frame by its owner's time
    def moving? = document["steps"].any? { |step| step["keys"] || step["spans"] || step.dig("matte", "contributors")&.any? { |part| part["keys"] || part["path"] } }

    # @return [Boolean] a matte in it refers to what is beyond it
    def refers? = document["steps"].any? { |step| step.dig("matte", "contributors")&.any? { |part| %w[linked clip].include?(part["kind"]) } }

    def project = (shot || wash || family || corrected).cut.project

    # Others' steps, and their numbers in the same step, stay.
    def without(revision, state = kept_state)
      now, before, after = [state, revision.before, revision.after].map { |one| one["document"] }
      checked = kind.new(Merge.without(now, before:, after:)).to_h
      MatteUses.check(self, checked) unless corrects_id
      {"document" => checked}
    rescue Merge::Conflict, Mordant::ParameterError
      nil
    end

    def take_state(state) = update!(**state, revision: revision + 1)

    # @param revision [Integer] the revision the change was made on
    # @param document [Hash]
    # @param words [String] what was done
    # @param gesture [String, nil] changes of one drag share it and are undone as one
    # @return [Recipe] as stored
    # @raise [Conflict, Mordant::ParameterError]
    def accept(revision:, document:, words:, gesture: nil)
      checked = kind.new(document).to_h
      transaction do
        project.lock!
        lock!
        raise Conflict, self unless revision == self.revision

        corrects_id ? Renditions.wait(corrected, checked) : MatteUses.check(self, checked)
        Change.record(project, words:, gesture:, states: {self => {"document" => checked}})
      end
      self
    end

    def to_h = {id:, shot: shot_id, wash: wash_id, family: family_id, corrects: corrects_id, place:, name:, revision:, document:}
  end
end
