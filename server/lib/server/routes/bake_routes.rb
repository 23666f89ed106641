# frozen_string_literal: true

module Server
  # A shot's grade, with the project's view, as a look-up table to take elsewhere.
  module BakeRoutes
    def self.registered(app)
      # How far the table is from exact, in code values of the view.
      app.get "/api/shots/:id/bake" do
        bake = bake(shot_to_bake)
        error = Pictures::Desk.current.gate.pass(nil, 0) { bake.error }
        answer(size: bake.size, worst: error.worst, mean: error.mean)
      end

      app.get "/api/shots/:id/look.cube" do
        shot = shot_to_bake
        bake = bake(shot)
        title = "#{shot.cut.project.name} #{shot.name}: #{shot.clip.encoding} to #{shot.cut.project.view}"
        text = Pictures::Desk.current.gate.pass(nil, 0) { Mordant::Lut::Cube.write(bake.table(title:)) }
        content_type "text/plain"
        attachment "#{[shot.cut.project.name, shot.name, shot.clip.encoding, bake.size].join("_").gsub(/[^\w.-]+/, "_")}.cube"
        text
      end

      app.helpers do
        # @raise [Mordant::ParameterError] of a clip nobody has assigned
        def shot_to_bake
          shot = Shot.includes(:recipes, :clip, cut: :project).fetch(params["id"])
          return shot if shot.clip.assigned?

          raise Mordant::ParameterError.new(path: "encoding", expected: "a clip whose encoding is assigned", found: shot.clip.path)
        end

        def bake(shot)
          plan = Mordant::Grade::Plan.new(recipe: shot.recipe.grade, source: shot.clip.encoding)
          size = Integer(params.fetch("size", "33"), 10, exception: false)
          Mordant::Grade::Bake.new(plan:, output: Mordant::Grade::Output.for(shot.cut.project.view), size:)
        end
      end
    end
  end
end
