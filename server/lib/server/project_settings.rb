# frozen_string_literal: true

module Server
  # The colour management of a project, read and changed as a whole.
  class ProjectSettings
    # A change that turns every graded picture into another, and was not confirmed.
    class Unconfirmed < Mordant::Error; end

    KEYS = %w[working_space targets canvas output_range compress_gamut input_rules].freeze
    MOST_TARGETS = 24

    def initialize(project)
      @project = project
    end

    # @param body [Hash] some of KEYS, and "confirm" to go on in spite of grades
    # @return [Integer] clips whose encoding has changed by the rules
    # @raise [Mordant::ParameterError, Unconfirmed]
    def change(body)
      given = body.slice(*KEYS)
      values = given.to_h { |key, value| [key, send(:"check_#{key}", value)] }
      Record.transaction do
        @project.lock!
        confirm(values) unless body["confirm"] == true
        @project.update!(values)
        assign
      end
    end

    # Gives every clip that nobody assigned by hand the encoding the rules say.
    #
    # @return [Integer] clips that changed
    def assign
      assignment = Mordant::Media::Assignment.new(@project.input_rules)
      @project.clips.ready.includes(:media_root).count do |clip|
        next if clip.by_hand?

        encoding, reason = assignment.call(clip.facts)
        clip.assign_attributes(encoding:, encoding_reason: reason)
        clip.changed? && clip.save!
      end
    end

    def to_h
      {**KEYS.to_h { |key| [key, @project[key]] }, targets: @project.views.map(&:to_h), graded: graded.size, findings: hand_overs.findings.map(&:to_h),
                                                   clips: @project.clips.ready.order(:path).map(&:to_h)}
    end

    # @return [Mordant::Grade::HandOvers]
    def hand_overs
      kinds = Mordant::Grade::HandOvers
      clips = @project.clips.ready.order(:path).map do |clip|
        kinds::Clip.new(name: clip.path, encoding: clip.encoding, range: clip.range, declared_range: clip.declared_range, transfer: clip.transfer)
      end
      kinds.new(space: @project.space, targets: @project.views.map { |target| kinds::Target.new(name: target.name, view: target.view) },
        canvas: @project.canvas, clips:, recipes: graded)
    end

    private

    # Recipes that change pictures, by the names of their shots.
    def graded
      @graded ||= Shot.where(cut: @project.cuts).includes(:recipes, :cut).filter_map do |shot|
        recipe = shot.recipe.grade
        ["#{shot.cut.name} #{shot.name}", recipe] unless recipe.neutral?
      end.to_h
    end

    # Numbers of a grade stay as they are; what they mean depends on these.
    def confirm(values)
      touched = %w[working_space compress_gamut].select { |key| values.key?(key) && values[key] != @project[key] }
      return if touched.empty? || graded.empty?

      what = touched.include?("working_space") ? "another working space" : "gamut compression of the input"
      raise Unconfirmed, "#{graded.size} #{(graded.size == 1) ? "shot is" : "shots are"} graded. With #{what} their numbers stay as they are, " \
                         "but act on other values: every one of these pictures changes, and changes back when the setting does."
    end

    def check_working_space(value) = Mordant::Colour::WorkingSpace.fetch(value.to_s).id

    def check_targets(value)
      unless value.is_a?(Array) && value.size.between?(1, MOST_TARGETS)
        raise Mordant::ParameterError.new(path: "targets", expected: "1 to #{MOST_TARGETS} targets", found: value)
      end
      made = value.each_with_index.map { |document, index| Target.from(document, path: "targets[#{index}]") }
      twice = made.map(&:id).tally.find { |_, count| count > 1 } || made.map(&:name).tally.find { |_, count| count > 1 }
      raise Mordant::ParameterError.new(path: "targets", expected: "ids and names used once", found: twice.first) if twice

      made.map(&:document)
    end

    def check_canvas(value)
      known = Mordant::Grade::Screen::CANVASES.keys
      known.include?(value) ? value : raise(Mordant::ParameterError.new(path: "canvas", expected: known.join(", "), found: value))
    end

    def check_output_range(value) = Mordant::Colour::SignalRange.check(value, "output_range")

    def check_compress_gamut(value)
      [true, false].include?(value) ? value : raise(Mordant::ParameterError.new(path: "compress_gamut", expected: "true or false", found: value))
    end

    def check_input_rules(value) = Mordant::Media::Assignment.new(value).rules
  end
end
