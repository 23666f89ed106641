# frozen_string_literal: true

module Server
  # Families of shots, and making one shot like another.
  module FamilyRoutes
    def self.registered(app)
      app.post "/api/cuts/:id/families" do
        cut = Cut.fetch(params["id"])
        body = body_json
        Family.form(cut, name: body["name"], members: every(cut.shots, ids(body, "shots")), words: body["words"])
        status 201
        families_of(cut)
      end

      app.patch "/api/families/:id" do
        family = Family.includes(cut: :project).fetch(params["id"])
        body = body_json
        family.change(body.slice("name", "hero"), words: body["words"])
        families_of(family.cut)
      end

      app.post "/api/families/:id/members" do
        family = Family.includes(cut: :project).fetch(params["id"])
        body = body_json
        family.take_in(every(family.cut.shots, ids(body, "shots")), words: body["words"])
        families_of(family.cut)
      end

      app.patch "/api/shots/:id/family" do
        shot = Shot.includes(cut: :project).fetch(params["id"])
        body = body_json
        shot.join(whole_or_none(body, "family"))
        families_of(shot.cut)
      end

      # A grade under which a shot is like its hero: the steps it would have then, how they
      # were found, and how much of both is alike before and after.
      app.post "/api/shots/:id/match" do
        shot = Shot.includes(cut: :project).fetch(params["id"])
        body = body_json
        hero = shot.cut.loaded_shots.find { |one| one.id == whole(body, "hero") } || raise(Mordant::ParameterError.new(path: "hero", expected: "a shot of the cut", found: body["hero"]))
        matching = Pictures::Matching.new(shot.cut.shot(shot.id), hero, body)
        answer(Pictures::Desk.current.gate.pass(nil, 0) { matching.to_h })
      end

      app.helpers do
        # Of the cut as it is now, with who belongs where.
        def families_of(cut)
          fresh = Cut.fetch(cut.id)
          members = fresh.loaded_shots.to_h { |shot| [shot.id, shot.family_id] }
          answer(families: fresh.to_h[:families], members:, project: fresh.project.to_h)
        end
      end
    end
  end
end
