# frozen_string_literal: true

module Server
  # Cuts and their shots.
  module CutRoutes
    def self.registered(app)
      app.get "/api/cuts/:id" do
        answer(Cut.includes(project: :head_change).fetch(params["id"]).to_h)
      end

      # The timecode that its first frame has.
      app.patch "/api/cuts/:id" do
        cut = Cut.includes(project: :head_change).fetch(params["id"])
        cut.begin_at(body_json["start"])
        answer(cut.to_h.slice(:id, :start, :start_frames, :drop))
      end

      # The record frame of a timecode somebody typed: of the cut, or of the source of a shot.
      app.get "/api/cuts/:id/frame" do
        cut = Cut.includes(:project).fetch(params["id"])
        next answer(frame: cut.at_record(params["record"])) if params["record"]

        shot = cut.shots.includes(clip: :media_root).find_by(id: Integer(params["shot"].to_s, 10, exception: false)) || raise(Record::Missing, "there is no shot #{params["shot"]} in this cut")
        shot.clip.association(:project).target = cut.project
        answer(frame: cut.at_source(shot, params["source"]))
      end

      # A flag with a note on many shots at once.
      app.post "/api/cuts/:id/flags" do
        cut = Cut.includes(:project).fetch(params["id"])
        body = body_json
        shots = every(cut.shots, ids(body, "shots"))
        Shot.mark(cut, shots, flag: body["flag"], note: body.fetch("note", ""), words: body["words"])
        answer(shots: shots.map { |shot| {id: shot.id, flag: shot.flag, note: shot.note} }, project: cut.project.reload.to_h)
      end

      # The frame that stands for a shot in overviews.
      app.put "/api/shots/:id/poster" do
        shot = Shot.fetch(params["id"])
        shot.stand("poster", whole(body_json, "frame"))
        answer(id: shot.id, poster: shot.poster)
      end

      app.post "/api/projects/:id/cuts" do
        project = Project.fetch(params["id"])
        body = body_json
        clips = every(project.clips.includes(:media_root), ids(body, "clips"))
        cut = Record.transaction do
          Cut.assemble(project:, name: body["name"], clips:)
        end
        status 201
        answer(Cut.fetch(cut.id).to_h)
      end
    end
  end
end
