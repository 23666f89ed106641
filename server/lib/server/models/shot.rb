# frozen_string_literal: true

module Server
  # A stretch of a clip in a cut.
  class Shot < Record
    include Undoable

    KEPT = %w[active_recipe_id family_id flag note].freeze
    FLAGS = %w[madder weld woad orchil walnut].freeze
    LONGEST_NOTE = 500 # characters
    UNGRADED = Mordant::Grade::Recipe.new(Mordant::Grade::Recipe::EMPTY_DOCUMENT)
    private_constant :UNGRADED

    belongs_to :cut
    belongs_to :clip
    belongs_to :family, optional: true
    has_many :recipes, -> { order(:id) }
    has_one :corrections, class_name: "Server::Recipe", foreign_key: :corrects_id, inverse_of: :corrected
    has_one :statistic

    # Its recipes, of thousands of shots without a relation for each.
    #
    # @return [Array<Recipe>]
    def versions = association(:recipes).then { |all| all.loaded? ? all.target : recipes.to_a }

    # @return [Recipe] the version in use
    def recipe = versions.then { |all| (active_recipe_id && all.find { |one| one.id == active_recipe_id }) || all.first }

    MOST_VERSIONS = 40

    # A copy of the version in use, which is then in use itself.
    #
    # @param name [String] of the version
    # @return [Recipe]
    # @raise [Mordant::ParameterError] of a name that is taken or none, or of too many
    def branch(name)
      text = name.to_s.strip
      taken = recipes.map(&:name)
      unless text.length.between?(1, 60) && !taken.include?(text)
        raise Mordant::ParameterError.new(path: "name", expected: "1 to 60 characters no version of this shot has yet", found: name)
      end
      raise Mordant::ParameterError.new(path: "name", expected: "at most #{MOST_VERSIONS} versions", found: taken.size) if taken.size >= MOST_VERSIONS

      transaction do
        cut.project.lock!
        recipes.create!(name: text, document: recipe.document).tap { |made| choose(made, "#{self.name}: version #{text} begun") }
      end
    end

    # @param id [Integer] of one of its versions
    # @raise [Mordant::ParameterError]
    def use(id)
      version = recipes.find { |one| one.id == id }
      raise Mordant::ParameterError.new(path: "recipe", expected: "a version of this shot", found: id) unless version
      return if version == recipe

      transaction do
        cut.project.lock!
        choose(version, "#{name}: version #{version.name}")
      end
    end

    # Puts a flag on shots, or takes it off, as one change.
    #
    # @param shots [Array<Shot>] of a cut
    # @param flag [String, nil] one of FLAGS
    # @param note [String]
    # @param words [String] what was done
    # @raise [Mordant::ParameterError]
    def self.mark(cut, shots, flag:, note:, words:)
      raise Mordant::ParameterError.new(path: "flag", expected: "#{FLAGS.join(", ")} or none", found: flag) unless [nil, *FLAGS].include?(flag)
      raise Mordant::ParameterError.new(path: "note", expected: "at most #{LONGEST_NOTE} characters", found: note) unless note.is_a?(String) && note.length <= LONGEST_NOTE
      raise Mordant::ParameterError.new(path: "shots", expected: "at least one shot", found: "none") if shots.empty?

      transaction do
        cut.project.lock!
        Change.record(cut.project, words:, states: shots.to_h { |shot| [shot, {"flag" => flag, "note" => note.strip}] })
      end
    end

    # The frame that stands for it from now on.
    #
    # @param kind [String] "poster", chosen, or "worked", where its grade was changed last
    # @param frame [Integer] record frame
    # @raise [Mordant::ParameterError] of a frame that is not its own
    def stand(kind, frame)
      at = frame - record_in
      raise Mordant::ParameterError.new(path: "frame", expected: "a frame of shot #{name}", found: frame) unless (0...length).cover?(at)

      update!(kind => at + clock) unless self[kind] == at + clock
    end

    # Another shot of the same grade, with all versions, its family, flag and note; without a place in the cut.
    #
    # @param values [Hash] what else is its own
    # @return [Shot]
    def copy(**values)
      made = cut.attic.create!(attributes.slice(*COPIED).merge(values))
      copies = recipes.to_h { |one| [one.id, made.recipes.create!(name: one.name, document: one.document)] }
      made.update!(active_recipe_id: copies[active_recipe_id]&.id) if active_recipe_id
      made
    end
    COPIED = %w[clip_id name scene source_in record_in length speed phase clock link family_id flag note poster worked].freeze

    # A grade as it is at one frame, for what cannot move: a table, a CDL.
    #
    # @param grade [Mordant::Grade::Recipe] of it
    # @param frame [Integer, nil] record frame; nil: the one it was worked at last, or its middle
    # @return [Array(Mordant::Grade::Recipe, String)] and which frame that is, in words; nil of one that stands still
    # @raise [Mordant::ParameterError] of a frame that is not its own
    def standing(grade, frame = nil)
      return [grade, nil] unless grade.moving?

      at = frame ? frame - record_in : own(worked) || [dissolve, length / 2].max.clamp(0, length - 1)
      raise Mordant::ParameterError.new(path: "frame", expected: "a frame of shot #{name}", found: frame) unless (0...length).cover?(at)

      [grade.at(at), "as at frame #{at + 1}, #{cut.timecode(record_in + at)}"]
    end

    # @return [Mordant::Cut::Timeline::Shot]
    def place
      Mordant::Cut::Timeline::Shot.new(key: id, name:, clip: clip_id, source_in:, record_in:, length:, dissolve:, clip_frames: clip.frames, speed:, phase:, wipe:, clock:, manner:)
    end

    # The washes that lie over it, in their order.
    #
    # @return [Array<Wash>]
    def washes = cut.loaded_washes.select { |wash| wash.over?(self) }

    # Makes it a member of a family, or of none.
    #
    # @param id [Integer, nil]
    # @raise [Mordant::ParameterError]
    def join(id)
      family = id && cut.loaded_families.find { |one| one.id == id }
      raise Mordant::ParameterError.new(path: "family", expected: "a family of the cut", found: id) if id && !family

      transaction do
        cut.project.lock!
        Change.record(cut.project, words: family ? "#{name} joins #{family.name}" : "#{name} leaves its family", states: {self => {"family_id" => id}})
      end
    end

    # Its family's ground steps, its own, the family's finish, and those of the washes over it, with all that
    # their mattes refer to.
    #
    # @param trial [Hash{Integer => Mordant::Grade::Recipe}] by recipe id, instead of what is stored
    # @param washes [Boolean] with those
    # @return [Mordant::Grade::Recipe]
    # @raise [Mordant::ParameterError, Mordant::MediaError] see Matting
    def grade(trial = {}, washes: true) = Matting.resolved(self, composed(trial, washes:), trial)

    # The same without what mattes refer to.
    #
    # @return [Mordant::Grade::Recipe]
    def composed(trial = {}, washes: true)
      return UNGRADED if clip.black?

      first, *others = layers(washes:).map { |one| timed(one, trial.fetch(one.id) { one.grade }) }
      first.followed_by(*others)
    end

    # What of its grade a delivery takes.
    #
    # @param graded [Boolean]
    # @param look [Float] how much of the washes, 0.0..1.0
    # @param cleaned [Boolean] with what takes noise away
    # @return [Mordant::Grade::Recipe]
    def delivered(graded, look, cleaned = true)
      return UNGRADED unless graded && !clip.black?

      laid = washes.select(&:enabled).map { |wash| timed(wash.recipe, wash.recipe.grade).weakened(look) }
      whole = Matting.resolved(self, composed(washes: false).followed_by(*laid), {})
      cleaned ? whole : whole.without(:noise)
    end

    # @param washes [Boolean] with those
    # @return [Array<Recipe>] that make its grade, in signal order
    def layers(washes: true)
      shared = family_id && cut.loaded_families.find { |one| one.id == family_id }
      [shared&.at("ground"), recipe, shared&.at("finish"), *(washes ? self.washes.select(&:enabled).map(&:recipe) : [])].compact
    end

    # What moves in a wash counts from the wash's first frame; else from the frame that the shot's clock says, so that
    # it stays with its source frames when ends are trimmed. Grain goes by the clip's own frames.
    #
    # @param row [Recipe]
    # @param grade [Mordant::Grade::Recipe] of it
    # @return [Mordant::Grade::Recipe]
    def timed(row, grade)
      return grade unless grade.moving?

      seed, here = nil
      grade.began(timed_from(row)).sown { |frame| [seed ||= Mordant::Film::Speckle.seed(clip.stem), (here ||= place).shown_at(frame + here.record_in)] }
    end

    # What its pictures depend on besides clip and project; see Pictures::Depends.
    #
    # @return [String]
    def revision
      own = layers.map { |one| "#{one.id}.#{one.revision}#{".#{timed_from(one)}" if one.moving? && (one.wash_id || !clock.zero?)}" }
      [*own, *(Pictures::Depends.digest(grade.stamps)[0, 12] if layers.any?(&:refers?))].join("-")
    end

    # @return [String] another one when its pictures change by where it stands in its clip
    def stands = [clip_id, source_in, length, speed, clip.fit].join(".")

    # @param clip [Hash] what is told of its clip
    # @param here [Mordant::Cut::Timeline::Shot]
    def to_h(clip: self.clip.to_h, here: place)
      {id:, name:, scene:, position:, source_in:, record_in:, length:, dissolve:, wipe:, manner:, crossover: dissolve.positive? && cut.timeline.crossover?(id), speed:, phase:, clock:, link:, head: here.head, tail: here.tail, family: family_id, flag:, note:,
       poster: own(poster), worked: own(worked), clip:, recipe: recipe.to_h,
       versions: versions.map { |one| {id: one.id, name: one.name, revision: one.revision} }}
    end

    private

    # A frame by its clock, as one counted from its first; nil where it does not show it any more.
    def own(frame) = frame && (frame - clock).then { |at| at if (0...length).cover?(at) }

    # @param row [Recipe]
    # @return [Integer] frames that what owns it began before the shot
    def timed_from(row)
      return clock unless row.wash_id

      record_in - cut.record_in(cut.loaded_washes.find { |one| one.id == row.wash_id }&.from_shot_id)
    end

    def choose(version, words)
      Change.record(cut.project, words: words[0, Change::LONGEST], states: {self => {"active_recipe_id" => version.id}})
    end
  end
end
