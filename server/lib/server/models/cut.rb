# frozen_string_literal: true

module Server
  # Ordered shots with their transitions; and an attic of those that were in it once.
  class Cut < Record
    include Undoable

    KEPT = %w[assembly reference_clip_id reference_offset].freeze

    belongs_to :project
    belongs_to :reference_clip, class_name: "Server::Clip", optional: true
    has_many :shots, -> { where.not(position: nil).order(:position) }, inverse_of: :cut
    has_many :attic, -> { where(position: nil).order(:id) }, class_name: "Server::Shot"
    has_many :washes, inverse_of: :cut
    has_many :families, inverse_of: :cut
    has_many :orders
    has_many :paths, -> { order(:id) }, inverse_of: :cut

    # Clips one after another, whole, in order of their timecode.
    #
    # @param clips [Array<Clip>]
    # @raise [Mordant::ParameterError] of none, or refused ones
    def self.assemble(project:, name:, clips:)
      refused = clips.find { |clip| !clip.ready? }
      if clips.empty? || refused
        raise Mordant::ParameterError.new(path: "clips", expected: "clips that were taken in", found: refused&.path || "none")
      end
      transaction do
        project.follow(clips)
        cut = create_named!(project, name)
        record = 0
        cut.add(clips.sort_by { |clip| [clip.start_frames, clip.reel.to_s, clip.path] }.each_with_index.map do |clip, position|
          {clip:, position:, source_in: 0, record_in: record, length: clip.frames}.tap { record += clip.frames }
        end)
        cut
      end
    end

    def self.create_named!(project, name)
      text = name.to_s.strip
      unless text.length.between?(1, 80)
        raise Mordant::ParameterError.new(path: "name", expected: "a name of 1 to 80 characters", found: name)
      end
      raise Mordant::ParameterError.new(path: "name", expected: "a name no cut has yet", found: text) if exists?(project:, name: text)

      create!(project:, name: text)
    end

    # Makes shots with a first, empty recipe each, in two statements.
    #
    # @param many [Array<Hash>] clip, frames, and where they stand if they have a place already; name and scene, else the clip's
    # @return [Array<Integer>] their ids
    def add(many)
      return [] if many.empty?

      rows = many.map { |values| {position: nil, dissolve: 0, record_in: 0}.merge(values.except(:clip), cut_id: id, clip_id: values[:clip].id, name: values[:name] || values[:clip].title, scene: values[:scene] || values[:clip].setting) }
      ids = Shot.insert_all!(rows, returning: :id, record_timestamps: true).rows.flatten
      Recipe.insert_all!(ids.map { |shot| {shot_id: shot, name: Recipe::FIRST, document: Mordant::Grade::Recipe::EMPTY_DOCUMENT} }, record_timestamps: true)
      ids
    end

    # Shots with all that a screen or a render needs, in three queries.
    def loaded_shots
      @loaded_shots ||= (shots.loaded? ? shots : shots.includes(:recipes, clip: :media_root)).to_a.each { |shot| shot.clip.association(:project).target = project }
    end

    # One shot with all that a picture needs; without the others where they are not there yet.
    #
    # @param id [Integer]
    # @return [Shot]
    def shot(id)
      return (@by_id ||= loaded_shots.index_by(&:id))[id] if @loaded_shots

      # one by one, whose statements are prepared: a fraction of the time that preloading takes
      (@single ||= {})[id] ||= (Shot.find_by(id:, cut_id: self.id) || raise(ActiveRecord::RecordNotFound)).tap do |one|
        one.association(:cut).target = self
        one.clip.association(:project).target = project
      end
    end

    # One of its shots, also of the attic.
    #
    # @param id [Integer, nil]
    # @return [Shot, nil]
    def member(id)
      return @by_id[id] if @loaded_shots && (@by_id ||= loaded_shots.index_by(&:id))[id]

      (@members ||= {})[id] ||= Shot.where(cut_id: self.id).includes(:recipes, clip: :media_root).find_by(id:)&.tap do |one|
        one.association(:cut).target = self
        one.clip.association(:project).target = project
      end
    end

    # Washes that lie over it, with their recipes, in two queries.
    def loaded_washes
      @loaded_washes ||= (washes.loaded? ? washes : washes.includes(:recipe)).select(&:laid).sort_by(&:id)
    end

    # Families with their recipes, in two queries.
    def loaded_families = @loaded_families ||= (families.loaded? ? families : families.includes(:recipes)).sort_by(&:id)

    # @return [Renditions] of what the project's HDR target shows
    def renditions = @renditions ||= Renditions.new(self)

    # Without what it knows that is no row: files of the library, which targets may be made with.
    #
    # @return [self]
    def anew = tap { @renditions = nil }

    # @return [Hash{Integer => Integer}] place of each shot in the cut
    def positions = @positions ||= shots.pluck(:id, :position).to_h

    # @return [Mordant::Cut::Timeline]
    def timeline
      @timeline ||= @loaded_shots ? Mordant::Cut::Timeline.new(@loaded_shots.map(&:place)) : Timelines.current.of(self)
    end

    # Frames of a programme before the cut's first one; 0 where their timecodes are too far apart.
    def by_timecode(clip)
      return 0 unless clip.start

      offset = timecode(0).frames - clip.start.at(project.rate).frames
      offset.between?(-timeline.length, clip.frames) ? offset : 0
    end

    # Digits with or without signs between them, as people type them.
    def typed(text, rate, drop, path: "record")
      digits = text.to_s.scan(/\d+/)
      digits = digits.first.rjust(8, "0").scan(/../) if digits.one?
      parts = ["00"] * [4 - digits.size, 0].max + digits
      Mordant::Cut::Timecode.parse("#{parts.first(3).map { |part| part.rjust(2, "0") }.join(":")}#{drop ? ";" : ":"}#{parts[3].to_s.rjust(2, "0")}", rate)
    rescue Mordant::ParameterError => e
      raise Mordant::ParameterError.new(path:, expected: e.expected, found: text)
    end
    private :typed, :by_timecode

    # @return [Hash] see Undoable; the places of its shots are kept as one
    def kept_state = attributes.slice(*KEPT).merge("assembly" => Assembly.rows(self))

    def take_state(state)
      Assembly.place(self, state["assembly"]) if state.key?("assembly")
      update!(state.except("assembly").merge("edition" => edition + 1))
    end

    # @yieldparam shot [Shot]
    # @yieldreturn [Mordant::Grade::Recipe] its grade; without a block, as it is stored
    # @return [Mordant::Deliver::Programme] at the project's raster
    def programme(&grade)
      sources = Hash.new { |known, id| known[id] = source_of(shot(id), &grade) }
      Mordant::Deliver::Programme.new(timeline:, sources:, width: project.width, height: project.height, mixing: project.transitions)
    end

    # @param shot [Shot]
    # @return [Mordant::Deliver::Programme::Source]
    def source_of(shot)
      recipe = block_given? ? yield(shot) : shot.grade
      Mordant::Deliver::Programme::Source.new(reader: shot.clip.reader, plan: project.plan(recipe, shot.clip.code_encoding))
    end

    # @param shot_id [Integer, nil]
    # @return [Integer] record frame at which that shot begins; the cut's first one of a shot that is not there
    def record_in(shot_id)
      @record_ins ||= shots.loaded? ? shots.to_h { |one| [one.id, one.record_in] } : timeline.shots.to_h { |one| [one.key, one.record_in] }
      @record_ins.fetch(shot_id) { @record_ins.each_value.first.to_i }
    end

    # @param frame [Integer] record frame
    # @return [Mordant::Cut::Timecode]
    def timecode(frame) = Mordant::Cut::Timecode.parse(start, project.rate) + frame

    # @param text [String] timecode of its first frame from now on
    # @raise [Mordant::ParameterError]
    def begin_at(text)
      update!(start: Mordant::Cut::Timecode.parse(text.to_s, project.rate).to_s)
      project.turn_over
    end

    # Lays a movie of the edit under it, or takes it away.
    #
    # @param values [Hash, nil] clip, its id; offset, frames of it before the cut's first one, else by timecode; nil: none
    # @raise [Mordant::ParameterError]
    def lay(values)
      clip = values && (project.clips.ready.find_by(id: values["clip"]) || raise(Mordant::ParameterError.new(path: "reference.clip", expected: "a clip that was taken in", found: values["clip"])))
      offset = clip ? values.fetch("offset") { by_timecode(clip) } : 0
      raise Mordant::ParameterError.new(path: "reference.offset", expected: "a whole number of frames", found: offset) unless offset.is_a?(Integer) && offset.abs < 10_000_000

      transaction do
        project.lock!
        Change.record(project, words: (clip ? "#{clip.stem} laid under the cut" : "no programme under the cut")[0, Change::LONGEST], states: {self => {"reference_clip_id" => clip&.id, "reference_offset" => offset}})
      end
    end

    # The frame at a timecode of the cut.
    #
    # @param text [String] as somebody typed it; what is left out at the front is 0
    # @return [Integer] record frame
    # @raise [Mordant::ParameterError] of one outside
    def at_record(text)
      first = timecode(0)
      frame = typed(text, project.rate, first.drop?).frames - first.frames
      return frame if (0...timeline.length).cover?(frame)

      raise Mordant::ParameterError.new(path: "record", expected: "#{first} to #{timecode(timeline.length - 1)}", found: text)
    end

    # The frame of a shot that shows a source timecode.
    #
    # @param shot [Shot]
    # @param text [String]
    # @return [Integer] record frame
    # @raise [Mordant::ParameterError] of one that the shot does not show
    def at_source(shot, text)
      clip, place = shot.clip, shot.place
      ends = [place.source_in, place.source_at(place.record_out - 1)].map { |frame| clip.timecode(frame) }
      wanted = typed(text, clip.rate, ends.first.drop?, path: "source")
      offset = (0...shot.length).find { |step| clip.timecode(place.source_at(place.record_in + step)).then { |at| (shot.speed >= 0) ? at >= wanted : at <= wanted } } if wanted.between?(*ends.minmax)
      return shot.record_in + offset if offset

      raise Mordant::ParameterError.new(path: "source", expected: "#{ends.first} to #{ends.last}, which shot #{shot.name} shows", found: text)
    end

    # For a list of cuts; what the pictures of its shots depend on.
    def summary
      {id:, name:, shots: shots.map { |shot| {id: shot.id, revision: shot.revision, encoding: shot.clip.encoding, range: shot.clip.range, place: shot.stands} }}
    end

    def to_h
      clips = Hash.new { |known, clip| known[clip] = clip.to_h }
      first = timecode(0)
      {id:, name:, edition:, reference: reference_clip && {clip: reference_clip_id, name: reference_clip.stem, offset: reference_offset, frames: reference_clip.frames},
       start:, start_frames: first.frames, drop: first.drop?, project: project.to_h, length: loaded_shots.sum(&:length), shots: loaded_shots.zip(timeline.shots).map { |shot, here| shot.to_h(clip: clips[shot.clip], here:) }, washes: loaded_washes.map(&:to_h),
       families: loaded_families.map(&:to_h).reject { |family| family[:shots].empty? }}
    end
  end
end
