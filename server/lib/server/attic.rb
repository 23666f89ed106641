# frozen_string_literal: true

module Server
  # Shots that were in a cut once and hold something that somebody made: a step, a version, a flag or a note.
  class Attic
    # @param cut [Cut]
    def initialize(cut)
      @cut = cut
    end

    # @return [Array<Hash>] for JSON
    def to_a
      shots.map do |shot|
        shot.association(:cut).target = @cut
        shot.clip.association(:project).target = @cut.project
        {id: shot.id, name: shot.name, scene: shot.scene, clip: shot.clip.stem, length: shot.length, source: shot.clip.timecode(shot.source_in).to_s, steps: shot.recipe.document["steps"].size,
         versions: shot.recipes.size, flag: shot.flag, note: shot.note, recipe: shot.recipe.to_h, revision: shot.revision, encoding: shot.clip.encoding, range: shot.clip.range, place: shot.stands}
      end
    end

    private

    def shots
      @cut.attic.includes(:recipes, clip: :media_root).order(updated_at: :desc).reject { |shot| shot.clip.black? || again?(shot) }
        .select { |shot| shot.recipes.size > 1 || shot.flag || shot.note.present? || shot.recipe.document["steps"].any? }
    end

    # A part of a shot that is whole again, with the same grade.
    def again?(shot)
      (placed[shot.clip_id] || []).any? do |other|
        other.source_in <= shot.source_in && other.source_in + other.length >= shot.source_in + shot.length && other.recipe.document == shot.recipe.document && other.recipes.size == shot.recipes.size
      end
    end

    def placed = @placed ||= @cut.shots.includes(:recipes).group_by(&:clip_id)
  end
end
