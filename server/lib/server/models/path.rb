# frozen_string_literal: true

module Server
  # Where a part of a shot's picture goes, as it was tracked once; recipes name it by its id. It is never
  # changed: what is tracked on or corrected is a path of its own.
  class Path < Record
    belongs_to :cut
    belongs_to :shot, optional: true

    KEPT = 64 # tracks of this process, the latest

    # @param id [Integer]
    # @param cut [Integer] id
    # @return [Mordant::Track::Path, nil] nil of one that is not of the cut; read once, as it never changes
    def self.track(id, cut)
      @tracks ||= {}
      kept = @tracks.delete([id, cut]) || find_by(id:, cut_id: cut)&.track or return
      @tracks[[id, cut]] = kept
      @tracks.shift while @tracks.size > KEPT
      kept
    end

    # @return [Mordant::Track::Path]
    def track = @track ||= Mordant::Track::Path.new(document)

    # For the strip and the picture: where the middle is on each frame, and how sure that is.
    def to_h
      places = track.span.map { |frame| track.at(frame).call(*track.centre).map { |one| one.to_f.round(5) } }
      {id:, shot: shot_id, name:, kind: track.kind, first: track.first, centre: track.centre, places:, maps: document["maps"], confidence: track.confidence, unsure: Mordant::Track::Path::UNSURE, lost: track.lost}
    end
  end
end
