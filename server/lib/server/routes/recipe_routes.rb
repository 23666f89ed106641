# frozen_string_literal: true

module Server
  # Grades.
  module RecipeRoutes
    def self.registered(app)
      app.get "/api/recipes/:id" do
        answer(Recipe.fetch(params["id"]).to_h)
      end

      app.put "/api/recipes/:id" do
        recipe = Recipe.fetch(params["id"])
        body = body_json
        gesture = body["gesture"] && body["gesture"].to_s[0, 64]
        Record.transaction do
          recipe.accept(revision: whole(body, "revision"), document: body["document"], words: body["words"], gesture:)
          recipe.shot&.stand("worked", whole(body, "frame")) if body["frame"]
        end
        answer(recipe: recipe.to_h, project: recipe.project.reload.to_h)
      end

      # A version more, begun as a copy of the one in use.
      app.post "/api/shots/:id/versions" do
        shot = shot_with_versions
        shot.branch(body_json["name"])
        status 201
        answer(shot: shot.reload.to_h, project: shot.cut.project.reload.to_h)
      end

      app.patch "/api/shots/:id" do
        shot = shot_with_versions
        shot.use(whole(body_json, "recipe"))
        answer(shot: shot.reload.to_h, project: shot.cut.project.reload.to_h)
      end

      # Steps over a stretch of the cut.
      app.post "/api/cuts/:id/washes" do
        cut = Cut.fetch(params["id"])
        body = body_json
        wash = Wash.lay(cut, body.slice("name", "from", "to"), words: body["words"])
        status 201
        answer(wash: wash.to_h, project: cut.project.reload.to_h)
      end

      app.patch "/api/washes/:id" do
        wash = Wash.includes(:recipe, cut: :project).fetch(params["id"])
        body = body_json
        wash.change(body.slice("name", "from", "to", "enabled", "laid"), words: body["words"], seen: body["seen"])
        answer(wash: wash.to_h, laid: wash.laid, project: wash.cut.project.reload.to_h)
      end

      # Copies of steps onto many shots at once; one undo takes all back.
      app.post "/api/cuts/:id/paste" do
        cut = Cut.fetch(params["id"])
        body = body_json
        shots = every(cut.shots.includes(:recipes), ids(body, "shots"))
        recipes = Recipe.paste(cut.project, shots.to_h { |shot| [shot, body["steps"]] }, replace: body["replace"] == true, along: body.slice("spans", "bundles"), from: (whole(body, "from") if body["from"]), words: body["words"])
        answer(recipes: recipes.map(&:to_h), project: cut.project.reload.to_h)
      end

      app.helpers do
        def shot_with_versions = Shot.includes(:recipes, cut: :project, clip: :media_root).fetch(params["id"])
      end
    end
  end
end
