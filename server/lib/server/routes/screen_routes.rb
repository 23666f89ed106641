# frozen_string_literal: true

module Server
  # Screens, the sessions that measure them, and what comes of these.
  module ScreenRoutes
    def self.registered(app)
      app.get "/api/screens" do
        kinds = Mordant::Calibration::Target::KINDS
        answer(screens: Screen.list, targets: kinds.map { |kind| kind.to_h.merge(corners: Mordant::Calibration::Diagram.corners(kind)) }, spectrum: Mordant::Calibration::Diagram.spectrum,
          sizes: Mordant::Calibration::Correction::SIZES, ranges: Mordant::Colour::SignalRange::ALL)
      end

      app.post "/api/screens" do
        status 201
        answer(Screen.made(body_json).to_h)
      end

      # Screens and probes that answer on this machine.
      app.get "/api/screens/devices" do
        answer(Mordant::Calibration::Line.found)
      end

      app.put "/api/screens/:id" do
        answer(Screen.fetch(params["id"]).change(body_json).to_h)
      end

      app.delete "/api/screens/:id" do
        screen = Screen.fetch(params["id"])
        raise Screen::Engaged, "#{screen.name} is being measured; cancel that first" if screen.calibrations.exists?(status: Calibration::LIVE)

        screen.destroy!
        answer({})
      end

      # Measure and correct it, or with "verify" measure it as it is corrected.
      app.post "/api/screens/:id/calibrations" do
        screen = Screen.fetch(params["id"])
        status 202
        answer(told(Calibration.begin(screen, verify: body_json["verify"] == true).id))
      end

      # Its pictures pass through nothing any more.
      app.post "/api/screens/:id/unload" do
        answer(Screen.fetch(params["id"]).tap { |screen| screen.update!(loaded: nil) }.to_h)
      end

      app.get "/api/calibrations/:id" do
        calibration = calibrated
        answer(told(calibration.id).merge(report: calibration.report || calibration.session.report.to_h, points: points(calibration)))
      end

      %w[pause go_on cancel load].each do |act|
        app.post "/api/calibrations/:id/#{act.tr("_", "-")}" do
          calibration = calibrated
          calibration.public_send(act)
          answer(told(calibration.id))
        end
      end

      # The report, to keep: a page, or JSON; and the correction, in what the screen is sent.
      app.get "/api/calibrations/:id/report.:form" do
        calibration = calibrated
        report = calibration.report or raise Screen::Engaged, "the session has not ended yet; its report comes then"
        attachment("#{session_file(calibration)}.#{params["form"]}")
        case params["form"]
        when "json" then content_type(:json) && JSON.pretty_generate(report)
        when "html" then content_type(:html) && Mordant::Calibration::Page.new(report, title: calibration.screen.name, date: calibration.ended_at.strftime("%-d %B %Y, %H:%M UTC")).to_html
        else raise Mordant::ParameterError.new(path: "form", expected: "html or json", found: params["form"])
        end
      end

      app.get "/api/calibrations/:id/correction.cube" do
        calibration = calibrated
        raise Screen::Engaged, "this session has made no correction" unless calibration.cube

        attachment("#{session_file(calibration)}.cube")
        content_type("text/plain")
        full = calibration.settings["range"] == "full"
        full ? calibration.cube : Mordant::Lut::Cube.write(Mordant::Lut::Table.new(title: "#{calibration.screen.name}, legal range", lattice: calibration.session.lattice))
      end

      app.helpers do
        def calibrated = Calibration.includes(:screen, :through).fetch(params["id"])

        def told(id) = Calibration.told.find(id).to_h

        def session_file(calibration) = "#{calibration.screen.name}_#{calibration.created_at.strftime("%Y-%m-%d_%H%M")}".gsub(/[^\p{L}\p{N}._-]+/, "_")

        # What was read until now.
        def points(calibration)
          calibration.journal.fetch("readings", []).select { |one| one["light"] }.map { |one| {phase: one["phase"], codes: one["codes"], uv: Mordant::Calibration::Judgement.uv(one["light"])} }
        end
      end
    end
  end
end
