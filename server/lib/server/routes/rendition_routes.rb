# frozen_string_literal: true

module Server
  # Renditions of an HDR picture: what is measured, how it is corrected, and the file of both.
  module RenditionRoutes
    def self.registered(app)
      app.get "/api/cuts/:id/renditions" do
        answer(RenditionList.new(rendered_cut).to_h)
      end

      # Levels of shots, measured by a worker; see Errands::Measure.
      app.post "/api/cuts/:id/measurements" do
        place("measure") { |_, body| body.slice("shots") }
      end

      # The recipe of a shot's corrections, begun where there is none.
      app.post "/api/shots/:id/corrections" do
        shot = Shot.includes(:statistic, cut: :project).fetch(params["id"])
        answer(recipe: shot.cut.renditions.begin([shot]).first.to_h)
      end

      # Corrections onto other shots, or from one target to another.
      app.post "/api/cuts/:id/renditions/paste" do
        cut, body = rendered_cut, body_json
        recipes = RenditionPaste.new(cut, body.slice("from", "parts", "as", "shots")).call(body["words"])
        answer(recipes: recipes.map(&:to_h), project: cut.project.reload.to_h)
      end

      # Levels of one shot, taken for others: an act of its own, which says what it means.
      app.post "/api/cuts/:id/levels" do
        cut, body = rendered_cut, body_json
        cut.renditions.take_levels(whole(body, "from"), ids(body, "shots"), confirmed: body["confirm"] == true)
        answer(RenditionList.new(rendered_cut).to_h)
      end

      # The data as a file: JSON, or CSV to read.
      app.get "/api/cuts/:id/renditions.:kind" do
        cut = rendered_cut
        data = RenditionData.new(cut)
        name = "#{cut.project.name}_#{cut.name}_renditions".gsub(/[^\p{L}\p{N}._-]+/, "_")
        attachment("#{name}.#{params["kind"]}")
        case params["kind"]
        when "json" then content_type(:json) && JSON.pretty_generate(data.to_h)
        when "csv" then content_type("text/csv") && data.to_csv
        else raise Mordant::ParameterError.new(path: "kind", expected: "json or csv", found: params["kind"])
        end
      end

      app.post "/api/cuts/:id/renditions" do
        cut = rendered_cut
        shots = RenditionData.new(cut).read(body_json["data"])
        answer(shots:, project: cut.project.reload.to_h)
      end

      app.helpers do
        def rendered_cut = Cut.includes(project: :head_change).fetch(params["id"])
      end
    end
  end
end
