# frozen_string_literal: true

module Server
  # Steps laid over a stretch of a cut, after the shots' own: the default look of all, a
  # scene-wide warmth. One that was taken away stays for the history.
  class Wash < Record
    include Undoable

    KEPT = %w[name from_shot_id to_shot_id enabled laid].freeze
    MOST = 24 # of a cut

    belongs_to :cut
    has_one :recipe

    # @param values [Hash] name; from and to, ids of its first and last shot, nil: the cut's own
    # @param words [String] what was done
    # @return [Wash] with an empty recipe
    # @raise [Mordant::ParameterError]
    def self.lay(cut, values, words:)
      transaction do
        cut.project.lock!
        raise Mordant::ParameterError.new(path: "washes", expected: "at most #{MOST} washes", found: MOST + 1) if cut.washes.where(laid: true).count >= MOST

        state = new(cut:).checked({"name" => nil, "from" => nil, "to" => nil, "enabled" => true}.merge(values)).merge("laid" => true)
        wash = create!(cut:, name: state["name"])
        wash.create_recipe!(name: "Wash", document: Mordant::Grade::Recipe::EMPTY_DOCUMENT)
        Change.record(cut.project, words:, states: {wash => state})
        wash
      end
    end

    # @param values [Hash] some of name, from, to, enabled, laid
    # @param seen [Hash, nil] see Undoable
    # @raise [Mordant::ParameterError, Undoable::Stale]
    def change(values, words:, seen: nil)
      transaction do
        cut.project.lock!
        lock!
        unchanged_since(seen)
        Change.record(cut.project, words:, states: {self => checked(values)})
      end
      self
    end

    # @param shot [Shot] of the cut
    # @return [Boolean] it lies over the shot
    def over?(shot) = laid && (first_position..last_position).cover?(shot.position)

    # @return [Hash{String => Object}] as kept
    # @raise [Mordant::ParameterError]
    def checked(values)
      state = {}
      state["name"] = text(values["name"]) if values.key?("name")
      %w[from to].each { |end_| state["#{end_}_shot_id"] = shot_id(end_, values[end_]) if values.key?(end_) }
      %w[enabled laid].each { |switch| state[switch] = flag(switch, values[switch]) if values.key?(switch) }
      in_order(*%w[from_shot_id to_shot_id].map { |key| state.fetch(key, self[key]) })
      state
    end

    def to_h = {id:, name:, from: from_shot_id, to: to_shot_id, enabled:, recipe: recipe.to_h, seen: kept_state}

    private

    def first_position = cut.positions.fetch(from_shot_id, 0)

    def last_position = cut.positions.fetch(to_shot_id, cut.positions.size)

    def text(value)
      name = value.to_s.strip
      name.length.between?(1, 60) ? name : reject("name", "1 to 60 characters", value)
    end

    def shot_id(name, value)
      (value.nil? || cut.positions.key?(value)) ? value : reject(name, "a shot of the cut", value)
    end

    def flag(name, value) = [true, false].include?(value) ? value : reject(name, "true or false", value)

    def in_order(from, to)
      return unless from && to && cut.positions.fetch(from, 0) > cut.positions.fetch(to, 0)

      reject("to", "a shot at or after the first one of the wash", to)
    end

    def reject(path, expected, found) = raise(Mordant::ParameterError.new(path:, expected:, found:))
  end
end
