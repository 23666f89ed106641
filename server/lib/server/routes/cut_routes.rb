# frozen_string_literal: true

module Server
  # Cuts and their shots.
  module CutRoutes
    def self.registered(app)
      app.get "/api/cuts/:id" do
        answer(Cut.includes(project: :head_change).fetch(params["id"]).to_h)
      end

      app.post "/api/projects/:id/cuts" do
        project = Project.fetch(params["id"])
        body = body_json
        clips = every(project.clips.includes(:media_root), ids(body, "clips"))
        cut = Record.transaction do
          project.update!(**format_of(clips.first)) if project.cuts.none? && clips.first&.ready?
          Cut.assemble(project:, name: body["name"], clips:)
        end
        status 201
        answer(Cut.fetch(cut.id).to_h)
      end

      app.helpers do
        # A project's first cut gives it raster and rate.
        def format_of(clip)
          clip.attributes.slice("width", "height", "rate_numerator", "rate_denominator")
        end
      end
    end
  end
end
