# frozen_string_literal: true

module Server
  # Pictures to compare with, and single pictures that leave.
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

      # The picture that is seen, frozen.
      app.post "/api/cuts/:id/stills" do
        cut = Cut.includes(:project).fetch(params["id"])
        body = body_json
        wish = Pictures::Second.of(wish(cut, body), body["second"] || {}, "second")
        Pictures::Desk.current.gate.pass(nil, 0) { Still.keep(cut.project, name: body["name"], frame: Pictures::Whole.of(wish), origin: origin_of(wish)) }
        status 201
        stills_of(cut.project)
      end

      app.delete "/api/stills/:id" do
        still = Still.includes(:project).fetch(params["id"])
        still.forget
        stills_of(still.project)
      end

      # The picture that is seen, at full raster, written below the delivery folder.
      app.post "/api/cuts/:id/export" do
        cut = Cut.includes(:project).fetch(params["id"])
        body = body_json
        exporting = Pictures::StillExport.new(wish(cut, body), body["format"].to_s)
        answer(path: Pictures::Desk.current.gate.pass(nil, 0) { exporting.write })
      end

      app.helpers do
        def stills_of(project) = answer(Still.where(project:).order(:id).map(&:to_h))

        def origin_of(wish)
          {cut: wish.cut.name, shot: wish.shot.name, timecode: wish.timecode.to_s}
        end
      end
    end
  end
end
