# frozen_string_literal: true

module Server
  # The places of a cut's shots as a whole, and changes of them: each is one of the project's history. Shots that
  # leave the cut keep their grades in its attic.
  class Assembly
    # What a row of the history holds of a shot, in this order.
    ROW = %w[id clip_id source_in phase length speed dissolve wipe clock link manner].freeze
    TOLD = %i[source_in phase length speed dissolve wipe clock].freeze
    PLACE = [*TOLD.map(&:to_s), "manner"].freeze
    PLACING = "UPDATE shots SET position = row.position, record_in = row.record_in, clip_id = row.clip_id, source_in = row.source_in, phase = row.phase, length = row.length, speed = row.speed, " \
              "dissolve = row.dissolve, wipe = row.wipe, clock = row.clock, link = row.link, manner = COALESCE(row.manner, '{}') FROM jsonb_to_recordset(?::jsonb) AS row(id bigint, position int, record_in int, clip_id bigint, source_in int, " \
              "phase float, length int, speed float, dissolve int, wipe int, clock int, link text, manner jsonb) WHERE shots.id = row.id AND shots.cut_id = ? AND (shots.position, shots.record_in, shots.clip_id, shots.source_in, " \
              "shots.phase, shots.length, shots.speed, shots.dissolve, shots.wipe, shots.clock, shots.link, shots.manner) IS DISTINCT FROM (row.position, row.record_in, row.clip_id, row.source_in, row.phase, row.length, row.speed, row.dissolve, row.wipe, row.clock, row.link, COALESCE(row.manner, '{}'))"

    class << self
      # @param cut [Cut]
      # @return [Array<Array>] of ROW, in order
      def rows(cut) = Shot.where(cut:).where.not(position: nil).order(:position).pluck(*ROW)

      # @return [Array<Hash>] where each shot stands, for JSON
      def told(cut)
        links = cut.shots.pluck(:id, :link).to_h
        cut.timeline.shots.map do |place|
          {id: place.key, clip: place.clip, link: links[place.key], head: place.head, tail: place.tail, **TOLD.to_h { |name| [name, place[name]] }, manner: place.manner.to_h, crossover: cut.timeline.crossover?(place.key)}
        end
      end

      # Puts shots where rows say; all others of the cut are in its attic then. What has come for a slate since is
      # shown in its place, and transitions that have lost their handles by that are shorter.
      #
      # @param cut [Cut]
      # @param rows [Array<Array>] of ROW
      # @raise [Mordant::ParameterError] of frames that a clip does not have
      def place(cut, rows)
        wanted = rows.map { |values| ROW.zip(values).to_h }
        found = Slates.filled(cut.project, wanted)
        found = healed(found) unless found.equal?(wanted)
        record = 0
        placed = found.each_with_index.map { |row, position| row.merge("position" => position, "record_in" => record).tap { record += row["length"] } }
        Shot.where(cut:).where.not(position: nil).where.not(id: placed.map { |row| row["id"] }).update_all(position: nil)
        Shot.connection.execute(Shot.sanitize_sql([PLACING, placed.to_json, cut.id]))
      end

      private

      def healed(rows)
        frames = Clip.where(id: rows.map { |row| row["clip_id"] }.uniq).pluck(:id, :frames).to_h
        rows.zip(Mordant::Cut::Edit.healed(rows.map { |row| shot(row, frames) }).shots).map { |row, shot| row.merge("dissolve" => shot.dissolve, "wipe" => shot.wipe, "manner" => shot.manner.to_h) }
      end

      def shot(row, frames)
        Mordant::Cut::Timeline::Shot.new(key: row["id"], clip: row["clip_id"], clip_frames: frames.fetch(row["clip_id"]),
          **PLACE.to_h { |name| [name.to_sym, row[name]] })
      end
    end

    # @return [Mordant::Cut::Edit]
    attr_reader :edit

    # @param cut [Cut]
    def initialize(cut)
      @cut = cut
      @links = cut.shots.pluck(:id, :link).to_h
      @edit = Mordant::Cut::Edit.new(cut.timeline.shots)
    end

    # Makes a change of the cut's shots.
    #
    # @param seen [Integer, nil] the edition that it was made on; nil: not said
    # @param words [String] what was done
    # @param names [Hash] see #take
    # @yieldparam edit [Mordant::Cut::Edit] as it is now
    # @yieldreturn [Mordant::Cut::Edit] shots that are new have keys that are no ids
    # @return [Array<Shot>] that are new in the cut
    # @raise [Mordant::ParameterError, Undoable::Stale]
    def self.change(cut, words:, seen: nil, names: {})
      Record.transaction do
        cut.project.lock!
        cut.lock!
        raise Undoable::Stale, "another window has changed the cut meanwhile; it is shown as it is now, make your change again if it is still wanted" if seen && seen != cut.edition

        assembly = new(cut)
        assembly.take(yield(assembly.edit), words, names:)
      end
    end

    # @param edit [Mordant::Cut::Edit]
    # @param grades [Hash{Object => Integer}] new key to the id of the shot whose grade it takes
    # @param names [Hash{Object => Hash}] key to link, and of a new one to name and scene
    # @return [Array<Shot>] that are new in the cut
    def take(edit, words, grades: {}, names: {})
      before = @edit.shots.map(&:key)
      made = made(edit, grades, names)
      rows = edit.shots.map { |shot| row(shot, made, names) }
      Change.record(@cut.project, words: words[0, Change::LONGEST], states: {@cut => {"assembly" => rows}, **washes(before, rows.map(&:first), split(edit, made))})
      ids = rows.map(&:first) - before
      @cut.reload.shots.includes(:recipes, clip: :media_root).where(id: ids).to_a
    end

    private

    def row(shot, made, names)
      id = made.fetch(shot.key, shot.key)
      link = names.dig(shot.key, :link) || @links.fetch(id) { @links[origin(shot.key)] }
      [id, shot.clip, shot.source_in, shot.phase, shot.length, shot.speed, shot.dissolve, shot.wipe, shot.clock, link, shot.manner.to_h]
    end

    # @return [Integer, nil] id of the shot that a new one is a part of
    def origin(key)
      key = key[1] while key.is_a?(Array) && key[0] == :new
      key if key.is_a?(Integer)
    end

    # @return [Hash{Object => Integer}] ids of shots that were made for new keys
    def made(edit, grades, names)
      fresh = edit.shots.reject { |shot| shot.key.is_a?(Integer) }
      from = Shot.where(id: fresh.filter_map { |shot| grades[shot.key] || origin(shot.key) }).includes(:recipes, :cut).index_by(&:id)
      taken = @cut.shots.pluck(:name).to_set
      parts, others = fresh.partition { |shot| from.key?(grades[shot.key] || origin(shot.key)) }
      copies = parts.to_h do |shot|
        source = from.fetch(grades[shot.key] || origin(shot.key))
        about = names.fetch(shot.key) { {name: next_name(source.name, taken)} }
        [shot.key, source.copy(**frames(shot), clip_id: shot.clip, **about.slice(:name, :scene).compact).id]
      end
      clips = Clip.where(id: others.map(&:clip)).index_by(&:id)
      copies.merge(others.map(&:key).zip(@cut.add(others.map { |shot| {clip: clips.fetch(shot.clip), **frames(shot), **names.fetch(shot.key, {}).slice(:name, :scene)} })).to_h)
    end

    def frames(shot) = {source_in: shot.source_in, record_in: shot.record_in, length: shot.length}

    def next_name(name, taken)
      stem = name.sub(/\.\d+\z/, "")
      (2..).lazy.map { |number| "#{stem}.#{number}" }.find { |one| taken.add?(one) }
    end

    # @return [Hash{Integer => Integer}] a shot to the last part of it that is new
    def split(edit, made)
      edit.shots.filter_map { |shot| [origin(shot.key), made[shot.key]] if origin(shot.key) && made[shot.key] }.to_h
    end

    # Washes whose first or last shot has left the cut, or been cut up, lie over what is left of their stretch.
    def washes(before, after, split)
      places = after.each_with_index.to_h
      @cut.washes.where(laid: true).each_with_object({}) do |wash, states|
        from, to = wash.from_shot_id, wash.to_shot_id
        next if [from, to].compact.all? { |id| places.key?(id) } && !split.key?(to) && (from.nil? || to.nil? || places[from] <= places[to])

        stretch = before[(before.index(from) || 0)..(before.index(to) || -1)].to_a
        left = (stretch + split.slice(*stretch).values).filter_map { |id| places[id] }
        states[wash] = left.empty? ? {"laid" => false} : {"from_shot_id" => from && after[left.min], "to_shot_id" => to && after[left.max]}
      end
    end
  end
end
