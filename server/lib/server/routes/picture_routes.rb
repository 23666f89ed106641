# frozen_string_literal: true

module Server
  # Pictures and what the instruments read in them.
  module PictureRoutes
    LIVE = "live" # size of an answer that holds a look-up table instead of a picture
    SMALL_COMPRESSION = 6 # of zlib; these stay in the browser's cache
    SMALL_CACHE = 31_536_000 # seconds; the address changes with the picture

    def self.registered(app)
      app.post "/api/cuts/:id/picture" do
        body = body_json
        content_type Pictures::Answer::TYPE
        Pictures::Desk.current.gate.pass(body["screen"]&.to_s, body["screen"] ? whole(body, "sequence") : 0) do
          picture(Cut.includes(:project).fetch(params["id"]), body)
        end
      end

      # A frame as its file has it, 16-bit red, green, blue, for drawing through a
      # look-up table; 204 where a screen cannot draw it by itself.
      app.get "/api/cuts/:id/source" do
        content_type Pictures::Answer::TYPE
        cut = Cut.includes(:project).fetch(params["id"])
        frame = Integer(params["frame"].to_s, 10, exception: false)
        raise Mordant::ParameterError.new(path: "frame", expected: "a whole number", found: params["frame"]) unless frame

        codes = Pictures::Desk.current.gate.pass(nil, 0) { Pictures::Desk.current.source(cut, frame:) }
        halt 204 unless codes
        Pictures::Answer.pack({frame:, width: codes.width, height: codes.height}, {codes: codes.rgb.transpose.to_binary})
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
          started = Process.clock_gettime(Process::CLOCK_MONOTONIC)
          trial = trial(body["trial"])
          header, parts = live(cut, body, trial) || computed(cut, body, trial, size(body))
          header[:curves] = trial.values.map { |recipe| Pictures::Desk.current.curves(recipe) }.reduce({}, :merge)
          took = ((Process.clock_gettime(Process::CLOCK_MONOTONIC) - started) * 1000).round(1)
          Pictures::Answer.pack({frame: body["frame"], sequence: body["sequence"], took:, **header}, parts)
        end

        # @return [String] one of Desk::REDUCTIONS; what cannot be live is reduced
        def size(body)
          size = (body["size"] == LIVE) ? "drag" : body.fetch("size", "full")
          return size if Pictures::Desk::REDUCTIONS.key?(size)

          raise Mordant::ParameterError.new(path: "size", expected: [LIVE, *Pictures::Desk::REDUCTIONS.keys].join(", "), found: size)
        end

        # @return [Array(Hash, Hash), nil] a look-up table for the screen, and the instruments
        def live(cut, body, trial)
          return unless body["size"] == LIVE && body["source"] != true

          lattice, domain = Pictures::Desk.current.lattice(cut, frame: whole(body, "frame"), trial:)
          return unless lattice

          header, parts = read(body, *made(cut, body, trial, "small"))
          [header.merge(size: LIVE, nodes: Pictures::Desk::LIVE_NODES, domain:), parts.merge(lattice: lattice.to_binary)]
        end

        # @return [Array(Hash, Hash)] a picture and, unless not wanted, the instruments
        def computed(cut, body, trial, size)
          working, final = made(cut, body, trial, size)
          header, parts = read(body, working, final)
          [header.merge(size:), {picture: Mordant::Media::Png.encode(final), **parts}]
        end

        def made(cut, body, trial, size)
          Pictures::Desk.current.picture(cut, frame: whole(body, "frame"), size:, trial:, source: body["source"] == true)
        end

        # What the instruments read in a picture.
        def read(body, working, final)
          raster = {width: final.width, height: final.height}
          return [raster, {}] if body["instruments"] == false

          instruments = Mordant::Scopes::Instruments.new(working, final)
          [raster.merge(instruments.header), instruments.parts]
        end

        # A recipe under a moving hand, shown before it is stored.
        def trial(document)
          return {} unless document
          raise Mordant::ParameterError.new(path: "trial", expected: "a shot and its document", found: document) unless document.is_a?(Hash)

          {whole(document, "shot") => Mordant::Grade::Recipe.new(document["document"])}
        end
      end
    end
  end
end
