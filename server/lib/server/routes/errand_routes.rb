# frozen_string_literal: true

module Server
  # What a worker does for somebody who waits: the answer is the errand, and its end an event.
  module ErrandRoutes
    def self.registered(app)
      # The picture that is seen, frozen.
      app.post "/api/cuts/:id/stills" do
        place("freeze") { |cut, body| Errands::Picture.held(cut, body) }
      end

      # The picture that is seen, at full raster, written below the delivery folder.
      app.post "/api/cuts/:id/export" do
        place("export") { |cut, body| Errands::Picture.held(cut, body) }
      end

      # Tables and CDLs of a whole cut, to be taken along.
      app.post "/api/cuts/:id/packages" do
        place("package") do |_, body|
          listed = ->(name, all) { body.fetch(name, all).then { |value| value.is_a?(Array) ? value : raise(Mordant::ParameterError.new(path: name, expected: "a list", found: value)) } }
          {size: whole(body, "size"), formats: listed["formats", LookPackage::FORMATS], layers: listed["layers", LookPackage::LAYERS], per: body.fetch("per", "shot"), target: body["target"]}
        end
      end

      # A shot of a flat programme, cut up at its shot changes.
      app.post "/api/cuts/:id/changes" do
        place("changes") { |_, body| body.slice("shot") }
      end

      # Where the programme under a cut shows other pictures.
      app.post "/api/cuts/:id/comparisons" do
        place("compare") { {} }
      end

      # A shape, followed through its shot; see Errands::Track.
      app.post "/api/cuts/:id/tracks" do
        place("track") { |_, body| body.slice("shot", "step", "contributor", "with", "way", "frame", "path", "by", "name") }
      end

      app.get "/api/errands/:id" do
        answer(Errand.fetch(params["id"]).to_h)
      end

      app.post "/api/errands/:id/cancel" do
        errand = Errand.fetch(params["id"])
        errand.cancel
        answer(errand.reload.to_h)
      end

      app.get "/api/errands/:id/file" do
        errand = Errand.fetch(params["id"])
        file = Errands::Pack.file(errand)
        halt 404, {error: "the package is not finished"}.to_json unless errand.status == "done" && File.exist?(file)
        content_type "application/x-tar"
        send_file(file, disposition: :attachment, filename: errand.result["name"])
      end

      app.helpers do
        def place(kind)
          cut = Cut.fetch(params["id"])
          status 202
          answer(Errand.place(cut, kind, yield(cut, body_json)).to_h)
        end
      end
    end
  end
end
