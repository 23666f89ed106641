# frozen_string_literal: true

module Server
  # CDLs: what of the grades they can say goes out, and what comes in becomes steps.
  module CorrectionRoutes
    WRITTEN = %w[cc ccc cdl].freeze

    def self.registered(app)
      # How well a CDL says what a shot's grade does, in log codes of the working space.
      app.get "/api/shots/:id/correction" do
        shot = Shot.includes(:recipes, :clip, cut: :project).fetch(params["id"])
        recipe, taken, export = exported(shot)
        answer(exact: export.exact?, error: export.error.to_h, left_out: recipe.beyond_luts.map(&:name), taken:, **export.cdl.to_h)
      end

      app.get "/api/shots/:id/correction.:format" do
        shot = Shot.includes(:recipes, :clip, cut: :project).fetch(params["id"])
        corrections_file([exported(shot).last.cdl], shot.name, params["format"])
      end

      # The corrections of a whole cut, as a collection or as comments of its cut list.
      app.get "/api/cuts/:id/corrections.:format" do
        cut = Cut.fetch(params["id"])
        cdls = cut.loaded_shots.to_h { |shot| [shot, export_of(cut.project, shot, *shot.standing(shot.recipe.grade)).cdl] }
        next corrections_file(cdls.values, cut.name, params["format"]) unless params["format"] == "edl"

        content_type "text/plain"
        attachment "#{file_name(cut.name)}.edl"
        CutList.new(cut).edl(cdls)
      end

      # Puts the corrections of a file on shots, as a step each; one undo takes all back.
      app.post "/api/cuts/:id/corrections" do
        cut = Cut.fetch(params["id"])
        body = body_json
        shots = body["shots"] ? every(cut.shots.includes(:recipes, clip: :media_root), ids(body, "shots")) : cut.loaded_shots
        taken = Corrections.read(body["name"].to_s, body["text"].to_s).put_on(cut, shots)
        answer(taken.merge(project: cut.project.reload.to_h))
      end

      app.helpers do
        # @return [Array(Mordant::Grade::Recipe, String, Mordant::Grade::CDLExport)] see Shot#standing
        def exported(shot)
          recipe = shot.recipe.grade
          recipe = recipe.only(params["steps"].split(",")) if params["steps"]
          recipe, taken = shot.standing(recipe, params["frame"] && number("frame"))
          [recipe, taken, export_of(shot.cut.project, shot, recipe, taken)]
        end

        def export_of(project, shot, recipe, taken = nil)
          Mordant::Grade::CDLExport.new(recipe:, space: project.space, id: shot.name, description: "#{project.name}, in #{project.space.label}#{", #{taken}" if taken}")
        end

        def corrections_file(cdls, name, format)
          raise Mordant::ParameterError.new(path: "format", expected: WRITTEN.join(", "), found: format) unless WRITTEN.include?(format)

          content_type "application/xml"
          attachment "#{file_name(name)}.#{format}"
          Mordant::Colour::CDLDocument.write(cdls, format:)
        end

        def file_name(name) = name.gsub(/[^\w.-]+/, "_")
      end
    end
  end
end
