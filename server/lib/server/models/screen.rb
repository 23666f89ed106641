# frozen_string_literal: true

module Server
  # A screen that somebody grades on, or judges by. loaded: the session whose correction its pictures pass through.
  class Screen < Record
    KINDS = %w[control reference].freeze
    KEYS = %w[name kind screen probe settings days].freeze
    DAYS = (1..3650) # after which it is to be verified again

    # It is being measured, or was, or somebody else has that name: what was asked for does not go now.
    class Engaged < Mordant::Error; end

    has_many :calibrations
    belongs_to :loaded, class_name: "Calibration", optional: true

    class << self
      # @return [Array<Hash>] of all, and of each its sessions, the latest first
      def list
        sessions, verified = Calibration.told.group_by(&:screen_id), verified()
        order(:id).map { |one| one.to_h(verified[one.loaded_id]).merge(sessions: sessions.fetch(one.id, []).map(&:to_h)) }
      end

      # @param corrections [Array<Integer>, nil] sessions that corrected; nil: all
      # @return [Hash{Integer => Time}] when each was last verified, by itself or by a later session
      def verified(corrections = nil)
        ended = Calibration.where(status: "done")
        ended = ended.where("coalesce(through_id, id) IN (?)", corrections) if corrections
        ended.group("coalesce(through_id, id)").maximum(:ended_at)
      end

      # @param body [Hash] see KEYS
      # @return [Screen]
      # @raise [Mordant::ParameterError]
      def made(body) = new(kind: KINDS.first, settings: Mordant::Calibration::Settings.new.to_h).change(body)

      # Of canvas codes, read once.
      #
      # @param id [Integer] of a session that has a correction
      # @param since [Time] when it was loaded
      # @return [Mordant::Calibration::Loaded]
      def correction(id, since)
        @corrections ||= {}
        @corrections.shift if @corrections.size > KEPT
        @corrections[[id, since]] ||= Calibration.find(id).loaded
      end
      KEPT = 16
    end

    # @param body [Hash]
    # @return [self] stored
    # @raise [Mordant::ParameterError]
    def change(body)
      Mordant::Checks.held("screen", body, KEYS)
      self.name = Mordant::Checks.text(body["name"].to_s.strip, "name") if body.key?("name") || new_record?
      self.kind = body["kind"] if body.key?("kind")
      Mordant::Checks.reject("kind", KINDS.join(" or "), kind) unless KINDS.include?(kind)
      {"screen" => :screen_address, "probe" => :probe_address}.each { |key, column| self[column] = address(body[key], key) if body.key?(key) }
      self.settings = settings_of(body["settings"]).to_h if body.key?("settings")
      self.days = body["days"] if body.key?("days")
      Mordant::Checks.reject("days", "whole days in #{DAYS}", body["days"]) if body.key?("days") && !(body["days"].is_a?(Integer) && DAYS.cover?(body["days"]))
      save!
      self
    rescue ActiveRecord::RecordNotUnique
      Mordant::Checks.reject("name", "a name no screen has yet", name)
    end

    # @return [String] of a picture for it: what its correction takes, or what it is to be corrected for; see Mordant::Grade::Screen
    def canvas = correction&.canvas || Mordant::Calibration::Target.kind(settings["target"]).canvas

    # @return [Mordant::Calibration::Loaded, nil]
    def correction = loaded_id && Screen.correction(loaded_id, updated_at)

    # @param verified [Time, nil] when it was last verified as it is corrected now
    def to_h(verified = Screen.verified([loaded_id])[loaded_id])
      age = verified && ((Time.now - verified) / 86_400).floor
      {id:, name:, kind:, screen: screen_address, probe: probe_address, settings:, days:, canvas:, loaded: loaded_id, age:, overdue: age.nil? || age >= days, words: words(age)}
    end

    private

    # @param age [Integer, nil] days since it was verified
    def words(age)
      return "not measured yet" unless age

      since = {0 => "today", 1 => "yesterday"}.fetch(age, "#{age} days ago")
      (age >= days) ? "verified #{since}; verify it again" : "verified #{since}"
    end

    def address(value, path)
      return "" if value.to_s.strip.empty?

      value.to_s.strip.tap { |text| Mordant::Calibration::Line.parse(text, path) }
    end

    def settings_of(document) = document.is_a?(Hash) ? Mordant::Calibration::Settings.new(document) : Mordant::Checks.reject("settings", "an object", document)
  end
end
