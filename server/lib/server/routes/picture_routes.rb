# frozen_string_literal: true

module Server
  # Pictures and what the instruments read in them.
  module PictureRoutes
    SMALL_COMPRESSION = 6 # of zlib; these stay in the browser's cache
    SMALL_CACHE = 31_536_000 # seconds; the address changes with the picture

    def self.registered(app)
      app.post "/api/cuts/:id/picture" do
        body = body_json
        content_type Pictures::Answer::TYPE
        Pictures::Desk.current.gate.pass(body["screen"]&.to_s, body["sequence"].to_i) do
          picture(Cut.includes(:project).fetch(params["id"]), body)
        end
      end

      # The middle of a shot, small; the address carries all it depends on.
      app.get "/api/shots/:id/small.png" do
        shot = Shot.includes(cut: :project).fetch(params["id"])
        content_type "image/png"
        cache_control :private, :immutable, max_age: SMALL_CACHE
        Pictures::Desk.current.gate.pass(nil, 0) do
          frame = shot.record_in + [shot.dissolve, shot.length / 2].max.clamp(0, shot.length - 1)
          _, final = Pictures::Desk.current.picture(shot.cut, frame:, size: "small", source: params["source"] == "1")
          Mordant::Media::Png.encode(final, compression: SMALL_COMPRESSION)
        end
      end

      app.helpers do
        def picture(cut, body)
          desk = Pictures::Desk.current
          size = body.fetch("size", "full")
          unless Pictures::Desk::REDUCTIONS.key?(size)
            raise Mordant::ParameterError.new(path: "size", expected: Pictures::Desk::REDUCTIONS.keys.join(", "), found: size)
          end
          started = Process.clock_gettime(Process::CLOCK_MONOTONIC)
          trial = trial(body["trial"])
          working, final = desk.picture(cut, frame: whole(body, "frame"), size:, trial:, source: body["source"] == true)
          instruments = Mordant::Scopes::Instruments.new(working, final) unless body["instruments"] == false
          header, parts = instruments&.header || {}, instruments&.parts || {}
          header[:curves] = trial.values.map { |recipe| desk.curves(recipe) }.reduce({}, :merge)
          parts = {picture: Mordant::Media::Png.encode(final), **parts}
          took = ((Process.clock_gettime(Process::CLOCK_MONOTONIC) - started) * 1000).round(1)
          Pictures::Answer.pack({frame: body["frame"], sequence: body["sequence"], size:, width: final.width,
                                 height: final.height, took:, **header}, parts)
        end

        # A recipe under a moving hand, shown before it is stored.
        def trial(document)
          return {} unless document

          {whole(document, "shot") => Mordant::Grade::Recipe.new(document["document"])}
        end
      end
    end
  end
end
