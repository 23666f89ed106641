# frozen_string_literal: true

module Server
  # Cuts and their shots.
  module CutRoutes
    def self.registered(app)
      app.get "/api/cuts/:id" do
        answer(Cut.includes(project: :head_change).fetch(params["id"]).to_h)
      end

      # A flag with a note on many shots at once.
      app.post "/api/cuts/:id/flags" do
        cut = Cut.includes(:project).fetch(params["id"])
        body = body_json
        shots = every(cut.shots, ids(body, "shots"))
        Shot.mark(cut, shots, flag: body["flag"], note: body.fetch("note", ""), words: body["words"])
        answer(shots: shots.map { |shot| {id: shot.id, flag: shot.flag, note: shot.note} }, project: cut.project.reload.to_h)
      end

      # The frame that stands for a shot in overviews.
      app.put "/api/shots/:id/poster" do
        shot = Shot.fetch(params["id"])
        shot.stand("poster", whole(body_json, "frame"))
        answer(id: shot.id, poster: shot.poster)
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
