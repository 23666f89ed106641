# frozen_string_literal: true

module Server
  # Shots of a cut that share steps: ground runs before each member's own, finish after.
  # One that nobody belongs to stays for the history.
  class Family < Record
    include Undoable

    KEPT = %w[name hero_shot_id].freeze
    PLACES = %w[ground finish].freeze
    MOST = 200 # of a cut

    belongs_to :cut
    has_many :recipes
    has_many :shots

    # @param name [String]
    # @param members [Array<Shot>] the first one is its hero
    # @param words [String] what was done
    # @return [Family]
    # @raise [Mordant::ParameterError]
    def self.form(cut, name:, members:, words:)
      raise Mordant::ParameterError.new(path: "shots", expected: "at least one shot", found: "none") if members.empty?

      transaction do
        cut.project.lock!
        raise Mordant::ParameterError.new(path: "shots", expected: "at most #{MOST} families", found: MOST + 1) if cut.families.count >= MOST

        family = create!(cut:, name: checked_name(name), hero_shot_id: members.first.id)
        PLACES.each { |place| family.recipes.create!(name: place, place:, document: Mordant::Grade::Recipe::EMPTY_DOCUMENT) }
        Change.record(cut.project, words:, states: members.to_h { |shot| [shot, {"family_id" => family.id}] })
        family
      end
    end

    # @param values [Hash] name, and hero, the id of a member
    # @raise [Mordant::ParameterError]
    def change(values, words:)
      state = {}
      state["name"] = self.class.checked_name(values["name"]) if values.key?("name")
      state["hero_shot_id"] = member(values["hero"]) if values.key?("hero")
      transaction do
        cut.project.lock!
        Change.record(cut.project, words:, states: {self => state})
      end
    end

    # Makes shots its members, as one change.
    #
    # @param shots [Array<Shot>] of its cut
    # @raise [Mordant::ParameterError]
    def take_in(shots, words:)
      raise Mordant::ParameterError.new(path: "shots", expected: "at least one shot", found: "none") if shots.empty?

      transaction do
        cut.project.lock!
        Change.record(cut.project, words:, states: shots.to_h { |shot| [shot, {"family_id" => id}] })
      end
    end

    def self.checked_name(value)
      name = value.to_s.strip
      name.length.between?(1, 60) ? name : raise(Mordant::ParameterError.new(path: "name", expected: "1 to 60 characters", found: value))
    end

    # @param place [String] of PLACES
    # @return [Recipe]
    def at(place) = recipes.find { |recipe| recipe.place == place }

    # @return [Integer, nil] id of the shot the others are made like
    def hero = (member_ids.include?(hero_shot_id) ? hero_shot_id : member_ids.first)

    def member_ids = cut.loaded_shots.select { |shot| shot.family_id == id }.map(&:id)

    def to_h = {id:, name:, hero:, shots: member_ids, ground: at("ground").to_h, finish: at("finish").to_h}

    private

    def member(id) = member_ids.include?(id) ? id : raise(Mordant::ParameterError.new(path: "hero", expected: "a member of the family", found: id))
  end
end
