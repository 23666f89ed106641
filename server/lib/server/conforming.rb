# frozen_string_literal: true

require "base64"

module Server
  # A cut list laid over a project: what its events are linked to, a cut made of it, or a new version of a cut.
  class Conforming
    LARGEST = 16 * 1024 * 1024 # bytes

    # @param project [Project]
    # @param body [Hash] list: name, and its text or its bytes in base64; rate, where it does not tell its own; links:
    #   numbers of events to ids of clips; prefer: beginning of the path of clips that win where several fit;
    #   handles: what becomes of transitions that want more of them than there are, see Mordant::Cut::Conform
    # @raise [Mordant::ParameterError, Mordant::FormatError]
    def initialize(project, body)
      @project = project
      given = body["list"]
      raise Mordant::ParameterError.new(path: "list", expected: "a list with its name and text", found: given) unless given.is_a?(Hash)

      @handles = body.fetch("handles", Mordant::Cut::Conform::HANDLES.first)
      @name = given["name"].to_s[0, 200]
      rate = given["rate"].present? ? Rate.parse(given["rate"], path: "list.rate") : (project.rate if project.fixed)
      @list = Mordant::Cut::List.parse(@name.empty? ? "list" : @name, text(given), rate:)
      check_rate
      @relinking = Relinking.new(project, links: links(body["links"]), prefer: body["prefer"])
    end

    # @return [Mordant::Cut::List]
    attr_reader :list

    # What of a missing event its slate goes by.
    def self.missing_name(event) = (event.file || event.clip || event.reel).to_s.delete_prefix("/")[0, Clip::LONGEST_NAME]

    # @return [Hash] for a screen
    def to_h
      {title: list.title, rate: list.rate.to_s, events: events, short: conform.short, notes: list.notes + conform.notes + footage_notes}
    end

    # Makes a cut of it.
    #
    # @param name [String]
    # @return [Cut]
    # @raise [Mordant::ParameterError]
    def cut(name)
      Record.transaction do
        follow
        cut = Cut.create_named!(@project, name)
        cut.begin_at(list.events.first.record_in.to_s)
        clips = Clip.where(id: conform.shots.map(&:clip)).each { |clip| clip.association(:project).target = @project }.index_by(&:id)
        cut.add(conform.placed.each_with_index.map { |one, position| row(one, clips, position) })
        slates
        cut
      end
    end

    # Makes a cut of a flat programme, where the list says.
    #
    # @param name [String]
    # @param clip [Clip]
    # @return [Cut]
    # @raise [Mordant::ParameterError]
    def notched(name, clip)
      Record.transaction do
        @project.follow([clip])
        cut = Cut.create_named!(@project, name)
        first = list.events.first.record_in
        start = (clip.start && clip.start.rate == first.rate) ? first.frames - clip.start.frames : 0
        pieces = Mordant::Cut::Notch.pieces(list, start: start.between?(-list.events.last.record_out.frames, clip.frames - 1) ? start : 0, frames: clip.frames)
        cut.begin_at((first + (pieces.first.first - start)).to_s)
        record = 0
        cut.add(pieces.each_with_index.map do |piece, position|
          {clip:, position:, name: piece_name(piece), scene: clip.setting, source_in: piece.first, record_in: record, length: piece.length, link: "the list's record times"}.tap { record += piece.length }
        end)
        cut
      end
    end

    # @param cut [Cut]
    # @return [Mordant::Cut::Recut]
    def recut(cut)
      Mordant::Cut::Recut.new(cut.timeline.shots, conform.shots, attic: cut.attic.includes(:clip).map(&:place), black: black.id)
    end

    # Lays it over a cut; what it was before is one undo away.
    #
    # @param seen [Integer, nil] edition of the cut
    # @return [Array<Shot>] that are new in the cut
    # @raise [Mordant::ParameterError, Undoable::Stale]
    def take(cut, seen: nil)
      found = recut(cut)
      grades = found.differences.select { |one| one.kind == "new" && one.from }.to_h { |one| [one.after.key, one.from.key] }
      placed = conform.placed.index_by { |one| one.shot.key }
      keys = conform.placed.map { |one| one.shot.key }.zip(found.shots.map(&:key)).to_h.invert
      names = found.shots.to_h { |shot| [shot.key, named(placed.fetch(keys.fetch(shot.key)))] }
      Record.transaction do
        cut.project.lock!
        cut.lock!
        raise Undoable::Stale, "another window has changed the cut meanwhile; compare the list again" if seen && seen != cut.edition

        Assembly.new(cut).take(Mordant::Cut::Edit.new(found.shots), "list #{@name.empty? ? list.title : @name} taken", grades:, names:).tap { slates }
      end
    end

    # @return [Mordant::Cut::Conform]
    def conform
      @conform ||= Mordant::Cut::Conform.new(list, black: source(black, 0, nil), handles: @handles) do |event|
        found = found(event)
        found.clip ? source(found.clip, found.first, found.rule) : source(slate(event), event.source_in.frames, nil)
      end
    end

    private

    def text(given)
      bytes = given["bytes"] ? Base64.strict_decode64(given["bytes"].to_s) : given["text"].to_s
      raise Mordant::ParameterError.new(path: "list", expected: "at most #{LARGEST / 1024 / 1024} MB", found: "more") if bytes.bytesize > LARGEST

      Mordant::Cut::List.text(bytes)
    rescue ArgumentError
      raise Mordant::ParameterError.new(path: "list.bytes", expected: "base64", found: "other characters")
    end

    def links(given)
      given ||= {}
      fine = given.is_a?(Hash) && given.all? { |number, id| number.to_s.match?(/\A\d+\z/) && id.is_a?(Integer) }
      raise Mordant::ParameterError.new(path: "links", expected: "numbers of events to ids of clips", found: given) unless fine

      given.transform_keys(&:to_i)
    end

    # A cut is counted at its project's rate, to the frame.
    def check_rate
      return if !@project.fixed || list.rate == @project.rate

      raise Mordant::ParameterError.new(path: "list.rate", expected: "the project's #{@project.rate} frames a second; make a project of the list's rate, or say the rate if the list was read as another", found: list.rate.to_s)
    end

    # Raster from most of what it shows; the rate is the list's.
    def follow
      return if @project.fixed

      clips = list.events.reject(&:black?).filter_map { |event| found(event).clip }
      @project.follow(clips) if clips.any?
      @project.update!(rate_numerator: list.rate.numerator, rate_denominator: list.rate.denominator, fixed: true)
      @conform = nil
    end

    def found(event) = (@found ||= {}.compare_by_identity)[event] ||= @relinking.link(event)

    def source(clip, first, rule) = Mordant::Cut::Conform::Source.new(clip: clip.id, frames: clip.frames, first:, rule:)

    def black = @black ||= Clip.black(@project)

    # Those that are there are read once.
    def slate(event)
      @slates ||= Clip.where(project: @project, status: "missing").index_by { |clip| [clip.reel, clip.path] }
      name = Conforming.missing_name(event)
      @slates[[event.reel, Clip.slate_path(name)]] ||= Clip.missing(@project, reel: event.reel, name:)
    end

    # Slates say how much of them is wanted.
    def slates
      found = @project.clips.where(status: "missing", filled_by_id: nil, id: conform.shots.map(&:clip)).index_by(&:id)
      Slates.used_of(found.values).each { |id, used| found[id].update!(reason: "#{used.size} frames from #{found[id].timecode(used.begin)}") }
    end

    def piece_name(piece)
      name = piece.event ? (piece.event.clip || piece.event.reel).to_s[0, 60] : "between"
      piece.transition ? "#{name} #{piece.event.transition.kind}" : name
    end

    def row(one, clips, position)
      shot = one.shot
      {clip: clips.fetch(shot.clip), position:, **named(one), **shot.to_h.slice(:source_in, :record_in, :length, :dissolve, :speed, :phase, :wipe, :clock), manner: shot.manner.to_h}
    end

    def named(one)
      clip = one.event && found(one.event).clip
      {name: (clip ? clip.title : one.shot.name)[0, 80], scene: clip ? clip.setting : one.event&.reel.to_s, link: one.rule}
    end

    def events
      list.events.map do |event|
        found = event.black? ? nil : found(event)
        event.to_h.merge("length" => event.length, "link" => found && {clip: found.clip&.id, name: found.clip&.path, rule: found.rule, reason: found.reason, candidates: found.candidates.map { |one| {id: one.id, path: one.path} }})
      end
    end

    def footage_notes
      clips = list.events.reject(&:black?).filter_map { |event| found(event).clip }.uniq
      clips.select(&:other_rate?).map { |clip| "#{clip.stem} runs at #{clip.rate.to_f.round(3)} frames a second, and is taken #{Clip::PACES.fetch(clip.pace)}" } +
        clips.select(&:other_shape?).map { |clip| "#{clip.stem} is #{clip.width}x#{clip.height}, and is shown #{Mordant::Media::Coding::FITS.fetch(clip.fit)}" } +
        list.events.reject { |event| event.black? || event.speed == 1 }.map { |event| "event #{event.number} #{pace(event)}" }
    end

    def pace(event)
      return "stands still" if event.speed.zero?

      way = event.speed.negative? ? " backwards" : ""
      change = case event.speed.abs
      when 0...1 then "frames are repeated"
      when 1 then "frame by frame"
      else "frames are left out"
      end
      "runs at #{(event.speed.abs * 100).to_f.round(1)} %#{way}: #{change}"
    end
  end
end
