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
        recipe.accept(revision: whole(body, "revision"), document: body["document"], words: body["words"], gesture:)
        answer(recipe: recipe.to_h, project: recipe.project.reload.to_h)
      end
    end
  end
end
