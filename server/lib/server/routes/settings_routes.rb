# frozen_string_literal: true

module Server
  # Project settings, own encodings and the LUT library.
  module SettingsRoutes
    def self.registered(app)
      app.get "/api/projects/:id/settings" do
        answer(settings_of(Project.fetch(params["id"])))
      end

      app.put "/api/projects/:id/settings" do
        project = Project.fetch(params["id"])
        changed = ProjectSettings.new(project).change(body_json)
        answer(settings_of(project.reload).merge(reassigned: changed, project: project.to_h))
      end

      # Sets of colour bands: ours, and the person's own.
      app.get "/api/bands" do
        answer(Mordant::Scopes::BandSets.all)
      end

      app.put "/api/bands" do
        Mordant::Scopes::BandSets.keep(body_json)
        answer(Mordant::Scopes::BandSets.all)
      end

      app.delete "/api/bands" do
        Mordant::Scopes::BandSets.drop(params["name"].to_s)
        answer(Mordant::Scopes::BandSets.all)
      end

      app.get "/api/luts" do
        answer(Mordant::Lut::Library.list)
      end

      # A LUT file, put into a folder of the library.
      app.post "/api/luts" do
        path = params["path"].to_s
        table = Mordant::Lut::Library.store(path, request.body.read)
        status 201
        answer(path:, title: table.title, luts: Mordant::Lut::Library.list)
      end

      app.helpers do
        def settings_of(project)
          ProjectSettings.new(project).to_h.merge(name: project.name, spaces: Mordant::Colour::WorkingSpace.all.map(&:to_h),
            library: {folder: Settings.library_shown, faults: (Mordant::Colour::Encoding.own.faults + Mordant::Scopes::BandSets.faults + Mordant::Lut::Library.faults + Mordant::Film::Materials.faults).map { |fault| fault.message.delete_prefix("#{Settings.library}/") }})
        end
      end
    end
  end
end
