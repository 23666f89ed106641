# frozen_string_literal: true

module Server
  # Measures a screen: shows patches, reads them, and keeps every reading the moment it is made.
  class CalibrationJob < CountedJob
    self.maximum_retry_count = 2
    LOCK = 4_711_000_000 # of advisory locks, with the session's id: two jobs never measure one screen

    # Somebody has paused or cancelled it.
    class Stopped < StandardError; end

    def work(id)
      alone(id) do
        @calibration = Calibration.includes(:screen, :through).find_by(id:, status: %w[waiting running]) or next
        @calibration.update!(status: "running")
        measure
      end
    end

    def set_aside(id) = Calibration.where(id:).update_all(status: "failed", message: REASON)

    private

    def alone(id)
      connection = ActiveRecord::Base.connection
      connection.execute("SELECT pg_advisory_lock(#{LOCK + Integer(id)})")
      yield
    ensure
      connection.execute("SELECT pg_advisory_unlock(#{LOCK + Integer(id)})")
    end

    def measure
      screen = Mordant::Calibration::Line::Screen.new(@calibration.screen.screen_address)
      probe = Mordant::Calibration::Line::Probe.new(@calibration.screen.probe_address)
      session = @calibration.session(screen:, probe:)
      session.run { |*told| step(session, *told) }
      finish(session)
    rescue Stopped
      nil # its journal has what was read
    rescue Mordant::Error => e
      stop_with(e.message)
    ensure
      [screen, probe].compact.each(&:close)
    end

    # @param sent [Array<Float>, nil] what the screen shows; a window of a browser shows the same in full range
    def step(session, phase, codes, sent)
      raise Stopped unless Calibration.exists?(id: @calibration.id, status: "running")

      if codes
        shown = sent.map { |one| Mordant::Colour::SignalRange.decode(one, session.settings.range) }
        @calibration.update_columns(phase:, showing: {codes:, shown:}, count: session.count, done: session.done)
      else
        got_further
        @calibration.update_columns(journal: session.journal, count: session.count, done: session.done)
      end
    end

    def finish(session)
      report = JSON.parse(session.report.to_h.to_json)
      cube = session.verifies? ? nil : Mordant::Lut::Cube.write(Mordant::Lut::Table.new(title: "#{@calibration.screen.name}, #{session.settings.kind.label}", lattice: session.correction.lattice))
      Calibration.transaction do
        @calibration.update!(report:, figures: Calibration.figures(report), cube:, journal: session.journal, status: "done", done: session.count, count: session.count, phase: nil, showing: nil, ended_at: Time.now)
        @calibration.load if cube
      end
    end

    def stop_with(words) = Calibration.where(id: @calibration.id, status: "running").update_all(status: "failed", message: words)
  end
end
