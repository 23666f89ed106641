# frozen_string_literal: true

module Server
  # Numbers solved from a patch of the picture that somebody points at.
  module PickRoutes
    def self.registered(app)
      # What temperature and tint make a patch grey.
      app.post "/api/shots/:id/neutral" do
        shot = Shot.includes(:recipes, cut: :project, clip: :media_root).fetch(params["id"])
        body = body_json
        recipe = shot.grade(trial(body["trial"]))
        before = shot.cut.project.plan(recipe.before(body["step"]), shot.clip)
        entry = recipe.entries.find { |one| one.id == body["step"] }
        raise Mordant::ParameterError.new(path: "step", expected: "a Balance", found: entry.name) unless entry.step.is_a?(Mordant::Steps::Balance)

        codes = Pictures::Desk.current.gate.pass(nil, 0) { Pictures::Desk.current.patch(shot.cut, frame: whole(body, "frame"), region: body["region"]) }
        answer(Mordant::Grade::NeutralPick.new(codes, before:, balance: entry.step).to_h)
      end
    end
  end
end
