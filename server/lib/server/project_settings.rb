# frozen_string_literal: true

module Server
  # The colour management of a project, read and changed as a whole.
  class ProjectSettings
    # A change that turns every graded picture into another, and was not confirmed.
    class Unconfirmed < Mordant::Error; end

    KEYS = %w[working_space targets canvas output_range compress_gamut mixing input_rules].freeze
    MOST_TARGETS = 24

    def initialize(project)
      @project = project
    end

    # @param body [Hash] some of KEYS, "confirm" to go on in spite of grades, and "seen", see Undoable
    # @return [Integer] clips whose encoding has changed by the rules
    # @raise [Mordant::ParameterError, Unconfirmed, Undoable::Stale]
    def change(body)
      given = body.slice(*KEYS)
      values = given.to_h { |key, value| [key, send(:"check_#{key}", value)] }
      Record.transaction do
        @project.lock!
        @project.unchanged_since(body["seen"])
        confirm(values) unless body["confirm"] == true
        keep(values.reject { |key, value| @project[key] == value })
      end
    end

    # What clips are read as; a part of the history as settings are.
    #
    # @param clips [Array<Clip>]
    # @param values [Hash{String => Object}] some of Clip::KEPT; an encoding of nil goes back to
    #   what rules and files say
    def assign(clips, values)
      Record.transaction do
        @project.lock!
        states = clips.to_h { |clip| [clip, values.merge((values.key?("encoding") && values["encoding"].nil?) ? ruled(clip, @project.input_rules) : {})] }
        record(states, "#{values.key?("encoding") ? "encoding" : "range"} of #{(clips.size == 1) ? File.basename(clips.first.path) : "#{clips.size} clips"}")
      end
    end

    def to_h
      {**KEYS.to_h { |key| [key, @project[key]] }, seen: @project.kept_state, targets: @project.views.map(&:to_h), graded: graded.size, findings: hand_overs.findings.map(&:to_h),
                                                   clips: @project.clips.ready.order(:path).map(&:to_h)}
    end

    # @return [Mordant::Grade::HandOvers]
    def hand_overs
      kinds = Mordant::Grade::HandOvers
      clips = @project.clips.ready.order(:path).map do |clip|
        kinds::Clip.new(name: clip.path, encoding: clip.encoding, range: clip.range, declared_range: clip.declared_range, transfer: clip.transfer)
      end
      kinds.new(space: @project.space, targets: @project.views.map { |target| kinds::Target.new(name: target.name, view: target.view) },
        canvas: @project.canvas, clips:, recipes:)
    end

    private

    # @return [Integer] clips whose encoding has changed by the rules
    def keep(values)
      clips = values.key?("input_rules") ? reassigned(values["input_rules"]) : {}
      record({@project => values, **clips}, "settings: #{values.keys.map { |key| key.tr("_", " ") }.join(", ")}")
      clips.size
    end

    # One change of what differs; none where nothing does.
    def record(states, words)
      differing = states.map { |row, state| [row, state.reject { |key, value| row[key] == value }] }.to_h.reject { |_, state| state.empty? }
      Change.record(@project, words: words[0, Change::LONGEST], states: differing) unless differing.empty?
    end

    # Clips nobody assigned by hand, as the rules say, where that is new.
    def reassigned(rules)
      @project.clips.ready.includes(:media_root).reject(&:by_hand?).to_h { |clip| [clip, ruled(clip, rules)] }
        .reject { |clip, state| clip.kept_state >= state }
    end

    def ruled(clip, rules)
      encoding, reason = Mordant::Media::Assignment.new(rules).call(clip.facts)
      {"encoding" => encoding, "encoding_reason" => reason}
    end

    def shots = @shots ||= Shot.where(cut: @project.cuts).where.not(position: nil).includes(:recipes, :cut, :clip).to_a

    # Shots whose pictures steps change: their own, their family's or a wash's.
    def graded = @graded ||= shots.reject { |shot| shot.grade.neutral? }

    # Recipes that change pictures, by the names of what they belong to.
    def recipes
      cuts = shots.map(&:cut).uniq
      shared = cuts.flat_map { |cut| cut.loaded_washes.map { |wash| ["#{cut.name} wash #{wash.name}", wash.recipe] } } +
        cuts.flat_map { |cut| cut.loaded_families.flat_map { |family| family.recipes.map { |recipe| ["#{cut.name} #{recipe.place} of #{family.name}", recipe] } } }
      (shots.map { |shot| ["#{shot.cut.name} #{shot.name}", shot.recipe] } + shared).to_h.transform_values(&:grade).reject { |_, grade| grade.neutral? }
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
      made = Target.list(value)
      twice = made.map(&:id).tally.find { |_, count| count > 1 } || made.map(&:name).tally.find { |_, count| count > 1 }
      raise Mordant::ParameterError.new(path: "targets", expected: "ids and names used once", found: twice.first) if twice

      made.map(&:document)
    end

    def check_canvas(value)
      known = Mordant::Grade::Screen::CANVASES.keys
      known.include?(value) ? value : raise(Mordant::ParameterError.new(path: "canvas", expected: known.join(", "), found: value))
    end

    def check_output_range(value) = Mordant::Colour::SignalRange.check(value, "output_range")

    def check_mixing(value)
      known = Mordant::Deliver::Mixing::DOMAINS.keys
      known.include?(value) ? value : raise(Mordant::ParameterError.new(path: "mixing", expected: known.join(", "), found: value))
    end

    def check_compress_gamut(value)
      [true, false].include?(value) ? value : raise(Mordant::ParameterError.new(path: "compress_gamut", expected: "true or false", found: value))
    end

    def check_input_rules(value) = Mordant::Media::Assignment.new(value).rules
  end
end
