# frozen_string_literal: true

module Server
  # Where a window is, and which recipe its hand is on; told by the window while it is open.
  class Presence < Record
    GONE = 25 # seconds without a sign
    TOUCH = 5 # seconds for which a hand counts after its last move
    ROOMS = %w[intake assembly bench board pairing renditions dispatch screens settings].freeze
    LONGEST = 40 # characters of a window's own name
    MOST = 40 # windows of one person

    belongs_to :person, optional: true

    # Written down, or with leaving taken away. Of one person the latest MOST windows are known.
    #
    # @param body [Hash] window, room, project, cut, shot, recipe: ids or null; touching; leaving
    # @raise [Mordant::ParameterError]
    def self.note(body)
      window = body["window"]
      raise Mordant::ParameterError.new(path: "window", expected: "1 to #{LONGEST} letters and digits", found: window) unless window.is_a?(String) && window.match?(/\A[\w-]{1,#{LONGEST}}\z/o)
      return where(window:).delete_all if body["leaving"] == true

      raise Mordant::ParameterError.new(path: "room", expected: ROOMS.join(", "), found: body["room"]) unless ROOMS.include?(body["room"])

      values = {window:, room: body["room"], person_id: Present.person&.id, seen_at: Time.now, touched_at: (Time.now if body["touching"] == true), **places(body)}
      upsert(values, unique_by: :window)
      where(person_id: values[:person_id]).where.not(id: where(person_id: values[:person_id]).order(seen_at: :desc).limit(MOST).select(:id)).delete_all
    end

    # Places that are gone are none.
    def self.places(body)
      {project_id: Project, cut_id: Cut, shot_id: Shot, recipe_id: Recipe}.to_h do |key, kind|
        id = body[key.to_s.delete_suffix("_id")]
        [key, (id if id.is_a?(Integer) && kind.exists?(id:))]
      end
    end
    private_class_method :places

    # @param projects [Array<Integer>]
    # @return [Hash{Integer => Array<Hash>}] who is there, by project
    def self.there(projects)
      where(project_id: projects, seen_at: (Time.now - GONE)..).includes(:person).order(:id).group_by(&:project_id).transform_values { |all| all.map(&:to_h) }
    end

    def to_h
      touching = touched_at && Time.now - touched_at < TOUCH
      {window:, person: person_id, name: person&.name, initials: person&.initials, room:, cut: cut_id, shot: shot_id, recipe: recipe_id, touching: touching || false}
    end
  end
end
