# frozen_string_literal: true

module Server
  # What was measured of a shot's HDR picture. digest: of all that picture depended on; copied_from: name of the shot whose
  # numbers somebody took for it. It belongs to the shot alone: what is copied, split or pasted has none.
  class Statistic < Record
    belongs_to :shot

    # @return [Mordant::Rendition::Statistics]
    def measured = @measured ||= Mordant::Rendition::Statistics.read(document)

    # @param shot [Shot]
    # @param measured [Mordant::Rendition::Statistics]
    def self.keep(shot, measured, digest:, copied_from: nil)
      upsert({shot_id: shot.id, digest:, document: measured.to_h, copied_from:}, unique_by: :shot_id)
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
