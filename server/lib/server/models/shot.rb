# frozen_string_literal: true

module Server
  # A stretch of a clip in a cut.
  class Shot < Record
    belongs_to :cut
    belongs_to :clip
    has_many :recipes, -> { order(:id) }

    # @return [Recipe] the version in use
    def recipe = recipes.first

    # @return [Mordant::Cut::Timeline::Shot]
    def placed
      Mordant::Cut::Timeline::Shot.new(key: id, source_in:, record_in:, length:, dissolve:, clip_frames: clip.frames)
    end

    def to_h
      {id:, name:, scene:, position:, source_in:, record_in:, length:, dissolve:, clip: clip.to_h, recipe: recipe.to_h}
    end
  end
end
