# frozen_string_literal: true

module Server
  # One delivery request: outputs of a cut or of chosen shots.
  class Order < Record
    belongs_to :cut
    has_many :outputs, -> { order(:id) }

    class << self
      # @param kinds [Array<String>] ids of Mordant::Deliver::Kind
      # @param shots [Array<Shot>, nil] each becomes outputs of its own; nil: the whole cut
      # @param template [String] see Mordant::Deliver::Naming
      # @return [Order] whose outputs are queued
      # @raise [Mordant::ParameterError] naming what is wrong; nothing is queued then
      def place(cut:, kinds:, shots:, template:)
        classes = check_kinds(kinds)
        naming = Mordant::Deliver::Naming.new(template)
        check_shots(cut, shots)
        transaction do
          order = create!(cut:, template:)
          stretches(cut, shots).product(classes).each { |stretch, kind| order.add(kind, naming:, **stretch) }
          order.outputs.each { |output| OutputJob.enqueue(output.id) }
          order
        end
      end

      private

      def check_kinds(kinds)
        unless kinds.is_a?(Array) && kinds.any?
          raise Mordant::ParameterError.new(path: "kinds", expected: "at least one kind of output", found: kinds)
        end
        kinds.uniq.map { |id| Mordant::Deliver::Kind.fetch(id) }
      end

      def check_shots(cut, shots)
        raise Mordant::ParameterError.new(path: "shots", expected: "at least one shot", found: "none") if shots&.empty?

        unassigned = (shots || cut.loaded_shots).find { |shot| !shot.clip.assigned? }
        return unless unassigned

        raise Mordant::ParameterError.new(path: "shot #{unassigned.name}", expected: "a clip whose encoding is assigned " \
          "(Intake room)", found: "none assigned to #{unassigned.clip.path}")
      end

      def stretches(cut, shots)
        return [{shot: nil, first: 0, frames: cut.timeline.length}] unless shots

        shots.map { |shot| {shot:, first: shot.record_in, frames: shot.length} }
      end
    end

    # @raise [Mordant::ParameterError] when the name is taken, on disk or in the queue
    def add(kind, naming:, shot:, first:, frames:)
      values = {project: cut.project.name, cut: cut.name, shot: shot&.name || "all", scene: shot&.scene || "all",
                clip: shot ? File.basename(shot.clip.path, ".*") : "all", reel: shot&.clip&.reel || "all", kind: kind.id,
                date: Time.now.strftime("%Y-%m-%d")}
      relative = naming.expand(values) + (kind.sequence? ? "" : kind.extension)
      Mordant::Deliver::Naming.place(Settings.delivery, relative)
      outputs.create!(shot:, kind: kind.id, path: relative, first:, frames:)
    rescue ActiveRecord::RecordNotUnique
      raise Mordant::ParameterError.new(path: "name", expected: "a name no other output has; add tokens such as {shot} or {kind}",
        found: relative)
    end

    def to_h = {id:, cut: cut_id, template:, created: created_at.iso8601, outputs: outputs.map(&:to_h)}
  end
end
