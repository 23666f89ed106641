# frozen_string_literal: true

module Server
  # One delivery request: any number of outputs of a cut or of chosen shots, rendered in
  # one pass from one graded source.
  class Order < Record
    MOST = 12 # outputs of a stretch
    PRIORITIES = (1..999)

    belongs_to :cut
    has_many :outputs, -> { order(:id) }, inverse_of: :order
    has_many :parts, -> { order(:id) }

    class << self
      # @param sheets [Array<Hash>] see Mordant::Deliver::Sheet; "target" instead of "view" is the id of
      #   one of the project's, or of an encoding of scene light; "name" instead of the order's template
      # @param shots [Array<Shot>, nil] each becomes files of its own; nil: the whole cut
      # @param template [String, nil] see Mordant::Deliver::Naming; not needed where every output has a name of its own
      # @param handles [Integer] frames more before and after each shot, as far as its clip goes
      # @param baked [Boolean] transitions at the begin of shots are in their files; false: a list has them, out of handles
      # @param skip [Boolean] frames that cannot be decoded are left out; false: they stop it
      # @return [Order] whose work is queued
      # @raise [Mordant::ParameterError] naming what is wrong; nothing is queued then
      def place(cut:, sheets:, shots:, template:, handles: 0, skip: false, baked: false)
        check_shots(cut, shots)
        unless handles.is_a?(Integer) && Mordant::Deliver::Sheet::HANDLES.cover?(handles)
          raise Mordant::ParameterError.new(path: "handles", expected: "0 to #{Mordant::Deliver::Sheet::HANDLES.end} frames", found: handles)
        end
        made = read(cut.project, sheets, template)
        transaction do
          order = create!(cut:, template: template.to_s, handles:, skip:, baked:)
          (shots || [nil]).each { |shot| made.each { |sheet, naming| order.add(sheet, naming:, shot:) } }
          (shots || [nil]).each { |shot| Work.begin_with(order, shot&.id) }
          order
        end
      end

      # @return [Array<Array(Mordant::Deliver::Sheet, Mordant::Deliver::Naming)>]
      # @raise [Mordant::ParameterError]
      def read(project, sheets, template)
        listed(sheets).each_with_index.map do |document, index|
          [sheet(project, document.except("name"), path: "outputs[#{index}]"), Mordant::Deliver::Naming.new(document["name"] || template)]
        end
      end

      # @return [Array<Hash>] the outputs asked for
      # @raise [Mordant::ParameterError]
      def listed(sheets)
        return sheets if sheets.is_a?(Array) && sheets.size.between?(1, MOST) && sheets.all?(Hash)

        raise Mordant::ParameterError.new(path: "outputs", expected: "1 to #{MOST} outputs", found: sheets)
      end

      # @param shot [Shot, nil]
      # @return [String] where an output of a shot or of the whole cut is written, below the delivery folder
      # @raise [Mordant::ParameterError]
      def named(cut, sheet, naming, shot)
        format = sheet.format
        values = {project: cut.project.name, cut: cut.name, shot: shot&.name || "all", scene: shot&.scene || "all",
                  clip: shot ? shot.clip.stem : "all", reel: shot&.clip&.reel || "all", kind: format.id, format: format.id,
                  encoding: sheet.view.encoding, frame: shot ? (shot.clip.first_number || shot.clip.start_frames).+(shot.source_in).to_s : "0", date: Time.now.strftime("%Y-%m-%d")}
        naming.expand(values) + (format.sequence? ? "" : format.extension)
      end

      # @return [Mordant::Deliver::Sheet]
      # @raise [Mordant::ParameterError]
      def sheet(project, document, path: "output")
        view = document["target"] ? view_of(project, document["target"], "#{path}.target") : document["view"]
        Mordant::Deliver::Sheet.new({"range" => project_range(project, document)}.compact.merge(document.except("target")).merge("view" => view), width: project.width, height: project.height, path:)
      end

      private

      # Scene light may be had of every project.
      LIGHT = %w[aces2065-1 acescg].freeze
      private_constant :LIGHT

      def view_of(project, id, path)
        return Mordant::Grade::View.new(encoding: id) if LIGHT.include?(id)

        project.views.find { |target| target.id == id }&.view ||
          raise(Mordant::ParameterError.new(path:, expected: [*project.views.map(&:id), *LIGHT].join(", "), found: id))
      end

      # The project's range, of formats that can have it.
      def project_range(project, document)
        project.output_range if Mordant::Deliver::Format.fetch(document["format"]).ranges.include?(project.output_range)
      end

      def check_shots(cut, shots)
        raise Mordant::ParameterError.new(path: "shots", expected: "at least one shot", found: "none") if shots&.empty?

        black = shots&.find { |shot| shot.clip.black? }
        raise Mordant::ParameterError.new(path: "shots", expected: "shots with pictures", found: "black at #{cut.timecode(black.record_in)}") if black

        unassigned = (shots || cut.loaded_shots).find { |shot| !shot.clip.assigned? }
        return unless unassigned

        raise Mordant::ParameterError.new(path: "shot #{unassigned.name}", expected: "a clip whose encoding is assigned " \
          "(Intake room)", found: "none assigned to #{unassigned.clip.path}")
      end
    end

    # @raise [Mordant::ParameterError] when the name is taken, on disk or in the queue
    def add(sheet, naming:, shot:)
      stretch = Stretch.new(self, shot&.id)
      format = sheet.format
      relative = Order.named(cut, sheet, naming, shot)
      Mordant::Deliver::Naming.place(Settings.delivery, relative)
      numbers = sheet.numbers || (stretch.first_number ? "source" : "timecode")
      outputs.create!(shot:, kind: format.id, sheet: sheet.to_h.merge("numbers" => numbers), path: relative, first: 0, frames: stretch.length)
    rescue ActiveRecord::RecordNotUnique
      raise Mordant::ParameterError.new(path: "name", expected: "a name no other output has; add tokens such as {shot} or {format}",
        found: relative)
    end

    # Makes a change of the queue: paused, and priority, of which the smaller goes first.
    #
    # @raise [Mordant::ParameterError]
    def change(values)
      if values.key?("priority")
        priority = values["priority"]
        raise Mordant::ParameterError.new(path: "priority", expected: "a number in #{PRIORITIES}", found: priority) unless priority.is_a?(Integer) && PRIORITIES.cover?(priority)

        update!(priority:)
        Work.reorder(self)
      end
      return unless values.key?("paused")

      update!(paused: values["paused"] == true)
      Work.go_on(self) unless paused
    end

    def to_h
      {id:, cut: cut_id, template:, handles:, skip:, baked:, priority:, paused:, created: created_at.iso8601, outputs: outputs.map(&:to_h)}
    end
  end
end
