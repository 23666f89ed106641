# frozen_string_literal: true

module Server
  # The swatchbook.
  module SwatchRoutes
    SMALL_WIDTH = 240 # pixels

    def self.registered(app)
      app.get "/api/swatches" do
        swatches
      end

      app.post "/api/shots/:id/swatches" do
        shot = Shot.includes(:recipes, cut: :project, clip: :media_root).fetch(params["id"])
        body = body_json
        frame = whole(body, "frame")
        Pictures::Desk.current.gate.pass(nil, 0) { Swatch.keep(shot, frame:, values: body.slice("name", "description", "folder", "peg")) }
        status 201
        swatches
      end

      # A swatch file, as the body.
      app.post "/api/swatches/import" do
        Swatch.bring_in(request.body.read, folder: params["folder"], **(params["name"] ? {name: params["name"].to_s} : {}))
        status 201
        swatches
      end

      app.get "/api/swatches/:id/file" do
        swatch = Swatch.fetch(params["id"])
        bytes = swatch.packed
        content_type "image/png"
        attachment "#{swatch.name.gsub(/[^\p{L}\p{N}._-]+/, "_")}.swatch.png"
        bytes
      end

      app.patch "/api/swatches/:id" do
        Swatch.fetch(params["id"]).take(body_json.slice("name", "description", "folder", "peg"))
        swatches
      end

      app.delete "/api/swatches/:id" do
        Swatch.fetch(params["id"]).forget
        swatches
      end

      # Its picture, 16 bits, as it was kept; or small.
      app.get "/api/swatches/:id/picture.png" do
        file = Swatch.fetch(params["id"]).file
        halt 404, {error: "the picture of this swatch is not there any more"}.to_json unless File.exist?(file)
        content_type "image/png"
        cache_control :private, :immutable, max_age: PictureRoutes::SMALL_CACHE
        params["small"] ? Mordant::Media::Stills.small(file, width: SMALL_WIDTH) : send_file(file)
      end

      app.helpers do
        def swatches = answer(Swatch.order(:folder, :name, :id).map(&:to_h))
      end
    end
  end
end
