# frozen_string_literal: true

module Server
  # Links to look at a cut by, notes, and who is where.
  module ReviewRoutes
    def self.registered(app)
      app.put "/api/presence" do
        Presence.note(body_json)
        answer({})
      end

      app.get "/api/cuts/:id/reviews" do
        answer(Cut.fetch(params["id"]).then { |cut| Review.where(cut:).includes(:person, :notes).order(:id) }.map(&:to_h))
      end

      # The address of the link is told this once.
      app.post "/api/cuts/:id/reviews" do
        review, secret = Review.made(Cut.fetch(params["id"]), body_json)
        status 201
        answer(review.to_h.merge(address: "/review/#{secret}"))
      end

      # Its notes stay.
      app.delete "/api/review_links/:id" do
        Review.fetch(params["id"]).update!(ends_at: Time.now)
        answer({})
      end

      app.get "/api/reviews/:secret" do
        answer(Review.opened(params["secret"]).told)
      end

      # Frames whose pictures are there, as [first, count]; the others are made.
      app.get "/api/reviews/:secret/kept" do
        answer(spans: Review.opened(params["secret"]).render.chunk_while { |a, b| b == a + 1 }.map { |run| [run.first, run.size] })
      end

      # As PNG, or with quick=1 as JPEG, for playing.
      app.get "/api/reviews/:secret/pictures/:frame" do
        review = Review.opened(params["secret"])
        quick = params["quick"] == "1"
        content_type(quick ? "image/jpeg" : "image/png")
        cache_control :private, :no_cache
        png = Pictures::Desk.current.gate.pass(nil, 0) { review.picture(number("frame")) }
        quick ? Mordant::Media::Png.jpeg(png) : png
      end

      app.post "/api/reviews/:secret/notes" do
        review = Review.opened(params["secret"])
        body = body_json
        raise Mordant::ParameterError.new(path: "words", expected: "at most #{Review::MOST} notes by one link", found: Review::MOST + 1) if review.notes.count >= Review::MOST
        raise Mordant::ParameterError.new(path: "frame", expected: "#{review.frames.first} to #{review.frames.last}", found: body["frame"]) unless body["answers"] || review.frames.cover?(body["frame"])

        status 201
        answer(Note.left(review.cut, body, by: body["by"], review:).to_h)
      end

      app.get "/api/cuts/:id/notes" do
        answer(Note.shown(Cut.fetch(params["id"])))
      end

      app.get "/api/cuts/:id/notes.:format" do
        kinds = {"txt" => :text, "otio" => :otio}
        made = kinds[params["format"]] or raise Mordant::ParameterError.new(path: "format", expected: "txt or otio", found: params["format"])
        cut = Cut.fetch(params["id"])
        attachment "#{cut.name.gsub(/[^\w.-]+/, "_")}_notes.#{params["format"]}"
        content_type "text/plain"
        NoteList.new(cut).public_send(made)
      end

      app.post "/api/cuts/:id/notes" do
        body = body_json
        note = Note.left(Cut.fetch(params["id"]), body, by: body["by"] || (Person.asked? ? nil : "colourist"))
        status 201
        answer(note.to_h)
      end

      app.patch "/api/notes/:id" do
        closed = body_json["closed"]
        raise Mordant::ParameterError.new(path: "closed", expected: "true or false", found: closed) unless [true, false].include?(closed)

        note = Note.includes(cut: :project).fetch(params["id"])
        note.close(closed)
        answer(note.to_h)
      end
    end
  end
end
