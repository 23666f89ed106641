# frozen_string_literal: true

module Server
  # A shot's grade, with the project's view, as a look-up table to take elsewhere.
  module BakeRoutes
    def self.registered(app)
      # How far the table is from exact, in code values of the view: on the colours of
      # the shot, and on all there are.
      app.get "/api/shots/:id/bake" do
        shot = shot_to_bake
        bake = bake(shot)
        seen, all = Pictures::Desk.current.gate.pass(nil, 0) { [bake.error(colours(shot)), bake.error] }
        answer(size: bake.size, seen: seen.to_h, all: all.to_h)
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

        # @return [Numo::DFloat] [3, n] codes of its middle frame; of linear light none
        def colours(shot)
          return if Mordant::Colour.encoding(shot.clip.encoding).linear?

          codes = Pictures::Desk.current.source(shot.cut, frame: shot.record_in + [shot.dissolve, shot.length / 2].max)
          codes && Numo::DFloat.cast(codes.reduce(4).rgb) / 65_535
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
