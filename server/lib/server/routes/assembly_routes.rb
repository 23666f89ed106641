# frozen_string_literal: true

module Server
  # The Assembly room: lists, hands on the cut, slates, the attic.
  module AssemblyRoutes
    def self.registered(app)
      # What a list says and what its events are linked to; nothing is made.
      app.post "/api/projects/:id/lists" do
        project = Project.fetch(params["id"])
        body = body_json
        unkept { Conforming.new(project, body).to_h }
      end

      # What a list would change of a cut.
      app.post "/api/cuts/:id/recut" do
        cut = Cut.fetch(params["id"])
        body = body_json
        unkept do
          conforming = Conforming.new(cut.project, body)
          conforming.to_h.merge(edition: cut.edition, differences: Differences.new(cut, conforming).to_a)
        end
      end

      # Lays it over the cut.
      app.put "/api/cuts/:id/recut" do
        cut = Cut.fetch(params["id"])
        body = body_json
        assembled(cut, Conforming.new(cut.project, body).take(cut, seen: whole_or_none(body, "edition")))
      end

      # A hand on the shots; see Assembly::Hands.
      app.post "/api/cuts/:id/assembly" do
        cut = Cut.fetch(params["id"])
        hands = Assembly::Hands.new(cut, body_json)
        assembled(cut, hands.call, notes: hands.notes)
      end

      # The cut as a list of its sources.
      app.get "/api/cuts/:id/list.:format" do
        cut = Cut.fetch(params["id"])
        raise Mordant::ParameterError.new(path: "format", expected: "edl or otio", found: params["format"]) unless %w[edl otio].include?(params["format"])

        attachment "#{cut.name.gsub(/[^\w.-]+/, "_")}.#{params["format"]}"
        content_type "text/plain"
        CutList.new(cut).public_send(params["format"])
      end

      # Shots that have left the cut, with their grades.
      app.get "/api/cuts/:id/attic" do
        cut = Cut.fetch(params["id"])
        answer(Attic.new(cut).to_a)
      end

      # Says what a slate stands for, wherever it stands.
      app.put "/api/projects/:id/slates/:slate" do
        project = Project.fetch(params["id"])
        body = body_json
        slate = project.clips.find_by(id: Integer(params["slate"], 10, exception: false), status: "missing") || raise(Record::Missing, "there is no slate #{params["slate"]} in this project")
        clip = project.clips.ready.find_by(id: whole(body, "clip")) || raise(Record::Missing, "there is no clip #{body["clip"]} that can be used")
        Slates.fill(slate, clip, at: whole_or_none(body, "source_in")) ||
          raise(Mordant::ParameterError.new(path: "clip", expected: "a clip with all the frames that shots show of #{slate.stem}", found: "#{clip.stem}, #{clip.frames} frames#{" from #{clip.start}" if clip.start}"))
        answer(slate: slate.id, clip: clip.id)
      end

      app.helpers do
        # Rows that are made to find something out are not kept.
        def unkept
          found = nil
          Record.transaction do
            found = yield
            raise ActiveRecord::Rollback
          end
          answer(found)
        end

        # Where each shot stands now; in whole what is new, as screens know the others.
        def assembled(cut, fresh, notes: [])
          cut = Cut.includes(project: :head_change).find(cut.id)
          project = cut.project
          fresh.each do |shot|
            shot.association(:cut).target = cut
            shot.clip.association(:project).target = project
          end
          clips = Hash.new { |known, clip| known[clip] = clip.to_h }
          answer(edition: cut.edition, length: cut.timeline.length, places: Assembly.told(cut), fresh: fresh.map { |shot| shot.to_h(clip: clips[shot.clip]) },
            washes: cut.loaded_washes.map { |wash| {id: wash.id, from: wash.from_shot_id, to: wash.to_shot_id} }, project: project.to_h, notes:)
        end
      end
    end
  end
end
