# frozen_string_literal: true

module Server
  # Tables and CDLs of a whole cut, to be taken along.
  module PackageRoutes
    def self.registered(app)
      app.post "/api/cuts/:id/packages" do
        body = body_json
        listed = ->(name, all) { body.fetch(name, all).then { |value| value.is_a?(Array) ? value : raise(Mordant::ParameterError.new(path: name, expected: "a list", found: value)) } }
        wish = {size: whole(body, "size"), formats: listed["formats", LookPackage::FORMATS], layers: listed["layers", LookPackage::LAYERS], per: body.fetch("per", "shot"), target: body["target"]}
        status 202
        answer(Package.place(Cut.includes(:project).fetch(params["id"]), wish).to_h)
      end

      app.post "/api/packages/:id/cancel" do
        package = Package.fetch(params["id"])
        package.cancel
        answer(package.reload.to_h)
      end

      app.get "/api/packages/:id/file" do
        package = Package.fetch(params["id"])
        halt 404, {error: "the package is not finished"}.to_json unless package.status == "done" && File.exist?(package.file)
        content_type "application/x-tar"
        send_file(package.file, disposition: :attachment, filename: "#{package.looks.name}.tar")
      end
    end
  end
end
