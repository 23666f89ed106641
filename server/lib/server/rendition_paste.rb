# frozen_string_literal: true

module Server
  # Puts corrections of one shot on others, or from one target to another; what was measured stays where it is.
  class RenditionPaste
    # @param cut [Cut]
    # @param body [Hash] from, id of a shot; parts, "all" and ids of targets; as, the id of another target for the only target
    #   among them; shots, ids
    # @raise [Mordant::ParameterError]
    def initialize(cut, body)
      @cut = cut
      @from, = among("from", [body["from"]])
      @parts, @as = body["parts"], body["as"]
      refuse("parts", "\"all\" and ids of targets", @parts) unless @parts.is_a?(Array) && @parts.any? && (@parts - [Mordant::Rendition::ForAll::ID, *targets.keys]).empty?
      refuse("as", "the id of a target, where one is copied", @as) if @as && !(targets.key?(@as) && (@parts - ["all"]).size == 1)
      @shots = among("shots", body["shots"])
      refuse("shots", "at least one shot", "none") if @shots.empty?
    end

    # @param words [String]
    # @return [Array<Recipe>] as stored
    def call(words)
      Record.transaction do
        rows = @cut.renditions.begin(@shots)
        @cut.project.lock!
        states = Recipe.where(id: rows.map(&:id)).order(:id).lock.to_h { |row| [row, pasted(row)] }
        states.each { |row, document| Renditions.wait(@cut.member(row.corrects_id), document) }
        Change.record(@cut.project, words:, states: states.transform_values { |document| {"document" => document} })
        states.keys
      end
    end

    private

    def pasted(row)
      kept = row.document["steps"].reject { |step| copied.any? { |one| one["id"] == step["id"] } || @parts.include?(step["id"]) && @as.nil? }
      spans = row.document.fetch("spans", []) | (@from.corrections&.document || {}).fetch("spans", [])
      Mordant::Rendition::Corrections.new({"steps" => kept + copied, "spans" => spans}).to_h
    end

    def copied
      @copied ||= (@from.corrections&.document || Mordant::Rendition::Corrections::NONE)["steps"].select { |step| @parts.include?(step["id"]) }
        .map { |step| (@as && step["id"] != Mordant::Rendition::ForAll::ID) ? step.merge("id" => @as, "name" => targets.fetch(@as)) : step }
    end

    def targets = @targets ||= @cut.renditions.targets.to_h { |target| [target.id, target.name] }

    def among(path, ids)
      known = @cut.renditions.shots.index_by(&:id)
      refuse(path, "shots of the cut", ids) unless ids.is_a?(Array) && ids.all? { |id| known.key?(id) }
      ids.map { |id| known.fetch(id) }
    end

    def refuse(path, expected, found) = raise(Mordant::ParameterError.new(path:, expected:, found:))
  end
end
