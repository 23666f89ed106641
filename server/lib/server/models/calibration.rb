# frozen_string_literal: true

module Server
  # A session that measures a screen and corrects it, or with through that verifies what an earlier one corrected. Its journal has all it has read, so that it
  # goes on where it was left. What is told of it is read without that.
  class Calibration < Record
    FIGURES = %w[de2000_mean de2000_max dl_mean dl_max white_duv gamut peak].freeze
    LIVE = %w[waiting running paused].freeze
    STOPPED = %w[paused failed].freeze # those that go on when somebody says so
    PRIORITY = 40 # before errands: a person stands before the screen

    belongs_to :screen
    belongs_to :through, class_name: "Calibration", optional: true

    # @param screen [Screen]
    # @param verify [Boolean] what is loaded, and no more
    # @return [Calibration] queued
    # @raise [Screen::Engaged, Mordant::ParameterError]
    def self.begin(screen, verify: false)
      raise Screen::Engaged, "#{screen.name} has no correction to verify yet; measure it first" if verify && screen.loaded.nil?

      %w[screen probe].each { |device| Mordant::Calibration::Line.parse(screen["#{device}_address"], device) }
      transaction do
        settings = verify ? screen.loaded.settings : screen.settings
        create!(screen:, settings:, through: (screen.loaded if verify)).tap(&:enqueue)
      end
    rescue ActiveRecord::RecordNotUnique
      raise Screen::Engaged, "#{screen.name} is being measured already; wait for it, or cancel it"
    end

    # Without all that was read, which is much.
    #
    # @return [ActiveRecord::Relation]
    def self.told = select(column_names - %w[journal report cube], "cube IS NOT NULL AS corrects", "journal #> '{readings,-1}' AS last").order(id: :desc)

    # @param report [Hash] of JSON
    # @return [Hash] its main figures
    def self.figures(report) = {"target" => report["settings"]["target"], "reachable" => report["reachable"], **%w[before after].to_h { |side| [side, report[side]&.slice(*FIGURES)] }}

    def enqueue = CalibrationJob.enqueue(id, job_options: {priority: PRIORITY})

    # @raise [Screen::Engaged] unless it is on its way
    def pause = turn(%w[waiting running], "paused")

    # @raise [Screen::Engaged] unless it has stopped
    def go_on
      transaction { turn(STOPPED, "waiting").enqueue }
    rescue ActiveRecord::RecordNotUnique
      raise Screen::Engaged, "#{screen.name} is being measured already; wait for it, or cancel it"
    end

    # @raise [Screen::Engaged] unless it can still end
    def cancel = turn([*LIVE, "failed"], "cancelled")

    # The screen's pictures pass through its correction from now on.
    #
    # @raise [Screen::Engaged] of one that has none
    def load
      raise Screen::Engaged, "this session has made no correction" unless cube

      screen.update!(loaded: self)
    end

    # As far as it has come, without devices.
    #
    # @return [Mordant::Calibration::Session]
    def session(**devices)
      Mordant::Calibration::Session.new(screen: nil, probe: nil, **devices, settings: Mordant::Calibration::Settings.new(settings), journal:, loaded: through&.lattice)
    end

    # @return [Mordant::Lut::Lattice] in the range the screen is sent
    def lattice = (settings["range"] == "full") ? loaded.lattice : session.lattice

    # @return [Mordant::Calibration::Loaded] its correction, of canvas codes
    def loaded = Mordant::Calibration::Loaded.of(cube, Mordant::Calibration::Settings.new(settings))

    # Of one that was read by .told.
    def to_h
      {id:, screen: screen_id, verifies: through_id, status:, phase:, showing:, count:, done:, left:, message:, began: created_at.iso8601, ended: ended_at&.iso8601, corrects: self[:corrects], latest:, settings:, figures:}
    end

    private

    def turn(from, to)
      changed = Calibration.where(id:, status: from).update_all(status: to, message: nil, updated_at: Time.now)
      raise Screen::Engaged, "this session is #{reload.status}; that does not go now" if changed.zero?

      reload
    end

    # @return [Float, nil] seconds, by what it has taken until now
    def left
      took = self[:last]&.fetch("at")
      took * (count - done) / done if took && done.positive? && count > done
    end

    # @return [Hash, nil] the patch that was read last, as a point of the diagram
    def latest
      last = self[:last]
      {codes: last["codes"], phase: last["phase"], light: last["light"], uv: last["light"] && Mordant::Calibration::Judgement.uv(last["light"])} if last
    end
  end
end
