# frozen_string_literal: true

module Server
  # Pictures to compare with.
  module StillRoutes
    def self.registered(app)
      app.get "/api/projects/:id/stills" do
        stills_of(Project.fetch(params["id"]))
      end

      # A picture file, as the body.
      app.post "/api/projects/:id/stills" do
        project = Project.fetch(params["id"])
        Still.bring_in(project, name: params["name"].to_s, bytes: request.body.read, encoding: params["encoding"] || "srgb")
        status 201
        stills_of(project)
      end

      app.delete "/api/stills/:id" do
        still = Still.includes(:project).fetch(params["id"])
        still.forget
        stills_of(still.project)
      end

      app.helpers do
        def stills_of(project) = answer(Still.where(project:).order(:id).map(&:to_h))
      end
    end
  end
end
