# frozen_string_literal: true

module Server
  # Footage that a list names and that is not there: a slate stands for it until it is taken in, or a person says
  # what it is. Slates count frames from timecode 00:00:00:00.
  module Slates
    BY_HAND = "by hand"

    module_function

    # What has come for slates, in their place.
    #
    # @param project [Project]
    # @param rows [Array<Hash>] see Assembly::ROW
    # @return [Array<Hash>]
    def filled(project, rows)
      slates = project.clips.where(id: rows.map { |row| row["clip_id"] }.uniq).where.not(filled_by_id: nil).includes(:filled_by, :project).index_by(&:id)
      return rows if slates.empty?

      rows.map do |row|
        slate = slates[row["clip_id"]]
        slate ? row.merge("clip_id" => slate.filled_by_id, "source_in" => taken(slate, row["source_in"]), "link" => slate.filled_rule) : row
      end
    end

    # @return [Integer] frame of what has come for a slate
    def taken(slate, frame) = slate.filled_shift ? frame + slate.filled_shift : frame_in(slate, frame, slate.filled_by)

    # The frame of another clip at the timecode that a clip has at one of its frames; the same number where the other
    # has no timecode.
    #
    # @return [Integer] as shots count it
    def frame_in(clip, frame, other)
      return frame unless other.start

      counted(other, clip.timecode(frame).at(other.rate).frames - other.start.frames)
    end

    # @param clip [Clip]
    # @param frame [Integer] of its file
    # @return [Integer] as shots count it
    def counted(clip, frame) = clip.paced? ? (frame * clip.project.rate / clip.rate).round : frame

    # Looks among what was taken in for what slates stand for.
    #
    # @param project [Project]
    # @return [Array<Clip>] slates that were filled
    def look(project)
      slates = project.clips.where(status: "missing", filled_by_id: nil).to_a
      return [] if slates.empty?

      relinking, used = Relinking.new(project), used_of(slates)
      slates.select do |slate|
        frames = used[slate.id] or next
        found = relinking.link(asked(slate, frames))
        found.clip && fill(slate, found.clip, rule: found.rule)
      end
    end

    # @param slate [Clip]
    # @param clip [Clip] what it stands for
    # @param at [Integer, nil] frame of the clip that the slate's first frame in use is; nil: by timecode
    # @return [Boolean] false where the clip does not have all the frames
    def fill(slate, clip, rule: BY_HAND, at: nil)
      Record.transaction(requires_new: true) do
        first = used(slate)&.begin
        slate.update!(filled_by: clip, filled_rule: rule, filled_shift: at && first && at - first)
        Cut.where(id: Shot.where(clip: slate).select(:cut_id)).includes(:project).each do |cut|
          Assembly.place(cut, Assembly.rows(cut))
          cut.update!(edition: cut.edition + 1)
        end
        away(slate)
        Shot.where(clip:, name: slate.path[0, 80]).update_all(name: clip.title, scene: clip.setting)
      end
      true
    rescue Mordant::ParameterError
      slate.reload
      false
    end

    # Shots in attics go over as well, as far as the clip has their frames.
    def away(slate)
      Shot.where(clip: slate, position: nil).find_each do |shot|
        source_in = taken(slate, shot.source_in)
        fits = source_in >= 0 && source_in + shot.length <= slate.filled_by.frames
        shot.update!(clip: slate.filled_by, source_in:, link: slate.filled_rule) if fits
      end
    end

    # @return [Range<Integer>, nil] frames of it that shots show
    def used(slate) = used_of([slate])[slate.id]

    # @param slates [Array<Clip>]
    # @return [Hash{Integer => Range<Integer>}] frames of each that shots show, by its id; in one query
    def used_of(slates)
      Shot.where(clip: slates).where.not(position: nil).includes(:clip).group_by(&:clip_id).transform_values do |shots|
        Range.new(*shots.flat_map { |shot| shot.place.then { |place| [place.source_in, place.source_at(place.record_out - 1)] } }.minmax)
      end
    end

    # @return [Mordant::Cut::List::Event]
    def asked(slate, frames)
      first, last = slate.timecode(frames.begin), slate.timecode(frames.end) + 1
      Mordant::Cut::List::Event.new(number: 0, reel: slate.reel.to_s, clip: slate.path, file: slate.path, transition: Mordant::Cut::List::CUT, source_in: first, source_out: last, record_in: first, record_out: last, speed: 1r)
    end
  end
end
