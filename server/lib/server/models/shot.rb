# frozen_string_literal: true

module Server
  # A stretch of a clip in a cut.
  class Shot < Record
    belongs_to :cut
    belongs_to :clip
    has_many :recipes, -> { order(:id) }

    # @return [Recipe] the version in use
    def recipe = recipes.find { |one| one.id == active_recipe_id } || recipes.first

    MOST_VERSIONS = 40

    # A copy of the version in use, which is then in use itself.
    #
    # @param name [String]
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
        recipes.create!(name: text, document: recipe.document).tap { |made| update!(active_recipe_id: made.id) }
      end
    end

    # @param id [Integer] of one of its versions
    # @raise [Mordant::ParameterError]
    def use(id)
      version = recipes.find { |one| one.id == id }
      version ? update!(active_recipe_id: id) : raise(Mordant::ParameterError.new(path: "recipe", expected: "a version of this shot", found: id))
    end

    # @return [Mordant::Cut::Timeline::Shot]
    def placed
      Mordant::Cut::Timeline::Shot.new(key: id, source_in:, record_in:, length:, dissolve:, clip_frames: clip.frames)
    end

    def to_h
      {id:, name:, scene:, position:, source_in:, record_in:, length:, dissolve:, clip: clip.to_h, recipe: recipe.to_h,
       versions: recipes.map { |one| {id: one.id, name: one.name} }}
    end
  end
end
