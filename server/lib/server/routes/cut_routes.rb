# frozen_string_literal: true

module Server
  # Cuts and their shots.
  module CutRoutes
    def self.registered(app)
      app.get "/api/cuts/:id" do
        answer(Cut.includes(project: :head_change).fetch(params["id"]).to_h)
      end

      # The timecode that its first frame has, and the programme that lies under it.
      app.patch "/api/cuts/:id" do
        cut = Cut.includes(project: :head_change).fetch(params["id"])
        body = body_json
        cut.begin_at(body["start"]) if body.key?("start") || !body.key?("reference")
        cut.lay(body["reference"]) if body.key?("reference")
        answer(cut.reload.to_h.slice(:id, :edition, :start, :start_frames, :drop, :reference, :project))
      end

      # The record frame of a timecode somebody typed: of the cut, or of the source of a shot.
      app.get "/api/cuts/:id/frame" do
        cut = Cut.fetch(params["id"])
        next answer(frame: cut.at_record(params["record"])) if params["record"]

        shot = cut.shots.includes(clip: :media_root).find_by(id: Integer(params["shot"].to_s, 10, exception: false)) || raise(Record::Missing, "there is no shot #{params["shot"]} in this cut")
        shot.clip.association(:project).target = cut.project
        answer(frame: cut.at_source(shot, params["source"]))
      end

      # A flag with a note on many shots at once.
      app.post "/api/cuts/:id/flags" do
        cut = Cut.fetch(params["id"])
        body = body_json
        shots = every(cut.shots, ids(body, "shots"))
        Shot.mark(cut, shots, flag: body["flag"], note: body.fetch("note", ""), words: body["words"])
        answer(shots: shots.map { |shot| {id: shot.id, flag: shot.flag, note: shot.note} }, project: cut.project.reload.to_h)
      end

      # The frame that stands for a shot in overviews.
      app.put "/api/shots/:id/poster" do
        shot = Shot.fetch(params["id"])
        shot.stand("poster", whole(body_json, "frame"))
        shot.cut.project.turn_over
        answer(id: shot.id, poster: shot.poster - shot.clock)
      end

      # Of clips one after another, of a list, or of a flat programme that a list is laid over.
      app.post "/api/projects/:id/cuts" do
        project = Project.fetch(params["id"])
        body = body_json
        if body.key?("list")
          over = body["over"] && every(project.clips.ready.includes(:media_root), [whole(body, "over")]).first
          conforming = Conforming.new(project, body)
          next made(over ? conforming.notched(body["name"], over) : conforming.cut(body["name"]))
        end

        clips = every(project.clips.includes(:media_root), ids(body, "clips"))
        made(Record.transaction { Cut.assemble(project:, name: body["name"], clips:) })
      end

      app.helpers do
        def made(cut)
          status 201
          answer(Cut.includes(project: :head_change).find(cut.id).to_h)
        end
      end
    end
  end
end
