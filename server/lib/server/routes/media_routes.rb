# frozen_string_literal: true

module Server
  # The Intake room: folders, taking in, clips.
  module MediaRoutes
    COPYING = %w[auto always never].freeze
    CLIP_KEYS = %w[pace rate fit copying].freeze

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
        answer(Project.fetch(params["id"]).clips.taken_in.includes(:project).order(:path).map(&:to_h))
      end

      app.patch "/api/projects/:id/clips" do
        project = Project.fetch(params["id"])
        body = body_json
        clips = every(project.clips.ready.includes(:media_root), ids(body, "clips"))
        Record.transaction do
          clips.each { |clip| clip.take_pace(body["pace"]) } if body.key?("pace")
          clips.each { |clip| clip.take_rate(body["rate"]) } if body.key?("rate")
          clips.each { |clip| clip.take_fit(body["fit"]) } if body.key?("fit")
          clips.each { |clip| copying(clip, body["copying"]) } if body.key?("copying")
          ProjectSettings.new(project).assign(clips, assigned(body)) if (body.keys & %w[encoding range]).any? || (body.keys & CLIP_KEYS).empty?
        end
        answer(clips: clips.map { |clip| clip.reload.to_h }, project: project.reload.to_h)
      end

      # Takes clips out of the project; their files stay.
      app.delete "/api/projects/:id/clips" do
        project = Project.fetch(params["id"])
        clips = every(project.clips.taken_in, ids(body_json, "clips"))
        Record.transaction { clips.each(&:remove) }
        answer(removed: clips.map(&:id))
      end

      app.get "/api/projects/:id/clips/:clip" do
        answer(clip_of(Project.fetch(params["id"])).to_h)
      end

      # A small picture of a clip as it is assigned, through the project's first target.
      app.get "/api/projects/:id/clips/:clip/picture" do
        project = Project.fetch(params["id"])
        clip = clip_of(project)
        content_type :png
        cache_control :private, max_age: 31_536_000
        slated(clip, project) { Pictures::Desk.current.gate.pass(nil, 0) { Pictures::ClipPicture.new(clip).png } }
      end

      app.helpers do
        # @raise [Record::Missing] of one that is not ready
        def clip_of(project)
          project.clips.ready.find_by(id: Integer(params["clip"], 10, exception: false)) || raise(Record::Missing, "there is no clip #{params["clip"]} that can be used")
        end

        # Whether a working copy is made of a clip.
        def copying(clip, wish)
          raise Mordant::ParameterError.new(path: "copying", expected: COPYING.join(", "), found: wish) unless COPYING.include?(wish)

          clip.update!(copying: wish)
          return clip.update!(copy_status: "none", copy_done: 0) if wish == "never"

          CopyJob.want(clip) unless %w[waiting making].include?(clip.copy_status)
        end

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
