# frozen_string_literal: true

module Server
  # What was measured of a shot's HDR picture. digest: of all that picture depended on; copied_from: name of the shot whose
  # numbers somebody took for it. It belongs to the shot alone: what is copied, split or pasted has none.
  class Statistic < Record
    belongs_to :shot

    # @return [Mordant::Rendition::Statistics]
    def measured = @measured ||= Mordant::Rendition::Statistics.read(document)

    # In one statement, however many.
    #
    # @param many [Array<Array(Shot, Mordant::Rendition::Statistics, String, String)>] shots with what was measured, its digest, and the name of
    #   the shot that it was copied from, or nil
    def self.keep(many)
      upsert_all(many.map { |shot, measured, digest, copied_from| {shot_id: shot.id, digest:, document: measured.to_h, copied_from:} }, unique_by: :shot_id) if many.any?
    end

    # What a picture of it would need to be the same.
    #
    # @param shot [Shot]
    # @return [String]
    def self.digest(shot)
      project = shot.cut.project
      clip = shot.clip
      Pictures::Depends.digest(Pictures::Depends.frames(clip, *Pictures::Desk.raster(project)), Pictures::Depends.grade(project, shot.grade, clip.source_encoding), shot.cut.renditions.hdr,
        shot.source_in, shot.length, shot.speed, shot.phase, shot.clock)[0, 24]
    end
  end
end
