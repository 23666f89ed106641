# frozen_string_literal: true

module Server
  # The Intake room: folders, taking in, clips.
  module MediaRoutes
    def self.registered(app)
      app.get "/api/media" do
        answer(MediaRoot.order(:label).map(&:to_h))
      end

      app.get "/api/media/:id" do
        path = params["path"].to_s
        answer(path:, entries: MediaRoot.fetch(params["id"]).list(path).map(&:to_h))
      end

      app.post "/api/projects/:id/intakes" do
        project = Project.fetch(params["id"])
        body = body_json
        root = MediaRoot.fetch(whole(body, "root"))
        root.resolve(body["path"].to_s)
        intake = Record.transaction do
          Intake.create!(project:, media_root: root, path: body["path"].to_s).tap { |one| IntakeJob.enqueue(one.id) }
        end
        status 202
        answer(intake.to_h)
      end

      app.get "/api/projects/:id/clips" do
        answer(Project.fetch(params["id"]).clips.order(:path).map(&:to_h))
      end

      app.patch "/api/projects/:id/clips" do
        project = Project.fetch(params["id"])
        body = body_json
        clips = every(project.clips.ready.includes(:media_root), ids(body, "clips"))
        ProjectSettings.new(project).assign(clips, assigned(body))
        answer(clips: clips.map { |clip| clip.reload.to_h }, project: project.reload.to_h)
      end

      app.helpers do
        # Encoding, range or both; an encoding of null goes back to what rules and file say.
        def assigned(body)
          values = {}
          if body.key?("encoding")
            encoding = body["encoding"] && picture_encoding(body["encoding"])
            values.update("encoding" => encoding, "encoding_reason" => encoding && Clip::BY_HAND)
          end
          values["range"] = Mordant::Colour::SignalRange.check(body["range"], "range") if body.key?("range")
          raise Mordant::ParameterError.new(path: "encoding", expected: "an encoding or a range", found: nil) if values.empty?

          values
        end

        # @return [String] id
        def picture_encoding(id)
          encoding = Mordant::Colour.encoding(id)
          return encoding.id if encoding.pictures?

          raise Mordant::ParameterError.new(path: "encoding", expected: "an encoding of pictures", found: id)
        end
      end
    end
  end
end
