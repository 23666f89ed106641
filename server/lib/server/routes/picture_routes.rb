# frozen_string_literal: true

module Server
  # Pictures and what the instruments read in them.
  module PictureRoutes
    LIVE = "live" # size of an answer that holds what a screen draws with instead of a picture
    QUICK_SIZE = "play" # of pictures at an edit, and of what is played by the clock
    SMALL_COMPRESSION = 6 # of zlib; these stay in the browser's cache
    MOST_PLAYING = 16 # frames of one answer
    MOST_LADDERS = 1000
    SMALL_CACHE = 31_536_000 # seconds; the address changes with the picture

    def self.registered(app)
      app.post "/api/cuts/:id/picture" do
        body = body_json
        content_type Pictures::Answer::TYPE
        Pictures::Desk.current.gate.pass(body["screen"]&.to_s, body["screen"] ? whole(body, "sequence") : 0) do
          ReadCuts.current.with(params["id"]) { |cut| picture(cut, body) }
        end
      end

      # A part of the picture, pixel by pixel as the screen shows it; see Pictures::Part.
      app.post "/api/cuts/:id/window" do
        body = body_json
        content_type "image/png"
        turn = [body["screen"]&.to_s, body["screen"] ? whole(body, "sequence") : 0]
        ReadCuts.current.with(params["id"]) do |cut|
          Pictures::Part.png(wish(cut, body), body) { |work| Pictures::Desk.current.gate.pass(*turn) { work.call } }
        end
      end

      # What a screen needs before a hand moves, so that it can draw the frame by itself; 204
      # where it cannot.
      app.post "/api/cuts/:id/ladder" do
        body = body_json
        content_type Pictures::Answer::TYPE
        made = ReadCuts.current.with(params["id"]) do |cut|
          wish = wish(cut, body)
          Pictures::Desk.current.gate.pass(nil, 0) { Pictures::Ladders.new(Pictures::Desk.current, wish, body["ladder"]).prepared }
        end
        halt 204 unless made
        Pictures::Answer.pack({frame: body["frame"], ladder: made.header}, made.parts)
      end

      # One pixel in numbers, for the loupe.
      app.post "/api/cuts/:id/point" do
        body = body_json
        place = %w[x y].map { |name| (body[name].is_a?(Numeric) && body[name].between?(0, 1)) ? body[name].to_f : raise(Mordant::ParameterError.new(path: name, expected: "a share of the picture", found: body[name])) }
        turn = [body["screen"]&.to_s, body["screen"] ? whole(body, "sequence") : 0]
        ReadCuts.current.with(params["id"]) do |cut|
          wish = wish(cut, body)
          source, working, display = Pictures::Desk.current.gate.pass(*turn) { Pictures::Desk.current.point(wish, *place) }
          matte = body["acts"] && Pictures::Desk.current.gate.pass(nil, 0) { Pictures::Desk.current.matte_point(wish, *place, body["acts"]) }
          answer(source:, working:, display:, matte:)
        end
      end

      # Frames of the cut as decoded, for playing them up their ladders; those of dissolves are
      # left out, as the header says.
      app.get "/api/cuts/:id/playing" do
        content_type Pictures::Answer::TYPE
        first, count = %w[first count].map { |name| number(name) }
        most_playing(count)
        frames = ReadCuts.current.with(params["id"]) { |cut| playing(cut, first, count, reduction(params["size"])) }
        sizes = frames.map { |frame, shot, codes| {frame:, shot: shot.id, width: codes.width, height: codes.height} }
        Pictures::Answer.pack({frames: sizes}, frames.to_h { |frame, _, codes| ["f#{frame}", codes.rgb.transpose.to_binary] })
      end

      # Finished pictures of a range, or frames of it without their noise, made by workers ahead of playing it.
      app.post "/api/cuts/:id/renders" do
        cut = Cut.fetch(params["id"])
        body = body_json
        screen(cut.project, body["on"])
        status 202
        answer(RangeRender.order(cut, first: whole(body, "first"), count: whole(body, "count"), screen: body["on"] || {}, **(body.key?("what") ? {what: body["what"]} : {})).to_h)
      end

      app.post "/api/renders/:id/cancel" do
        render = RangeRender.fetch(params["id"])
        render.cancel
        answer(render.reload.to_h)
      end

      # Frames whose finished pictures are there, as [first, count].
      app.post "/api/cuts/:id/kept" do
        cut = Cut.fetch(params["id"])
        wish = Pictures::Wish.new(cut:, screen: screen(cut.project, body_json["on"]))
        frames = Pictures::Kept.current.frames(wish, 0...cut.timeline.length)
        answer(spans: frames.chunk_while { |a, b| b == a + 1 }.map { |run| [run.first, run.size] })
      end

      # Frames that have noise taken away, and those of them whose result is there, as [first, count].
      app.get "/api/cuts/:id/cleaned" do
        cut = Cut.fetch(params["id"])
        cut.loaded_shots
        wanted, there = Pictures::Desk.current.cleaned.frames(Pictures::Wish.new(cut:), 0...cut.timeline.length)
        answer(wanted: wanted.size, spans: there.chunk_while { |a, b| b == a + 1 }.map { |run| [run.first, run.size] })
      end

      # Frames to play as they are once their noise is taken away, in log codes of the working space.
      app.post "/api/cuts/:id/cleaned" do
        body = body_json
        first, count = whole(body, "first"), whole(body, "count")
        most_playing(count)
        content_type Pictures::Answer::TYPE
        cut = Cut.fetch(params["id"])
        wish = Pictures::Wish.new(cut:, trial: trial(body["trial"]))
        starts = Pictures::Desk.current.gate.pass(nil, 0) { Pictures::PlayedLadders.starts(Pictures::Desk.current, wish, first...(first + count), reduction(body["size"])) }
        Pictures::Answer.pack({frames: starts.map(&:first)}, starts.to_h { |told, words| ["f#{told[:frame]}", words] })
      end

      # One of them; made now if it is not there, smaller if that will do.
      app.post "/api/cuts/:id/finished" do
        cut = Cut.fetch(params["id"])
        body = body_json
        content_type Pictures::Answer::TYPE
        wish = Pictures::Wish.new(cut:, frame: whole(body, "frame"), screen: screen(cut.project, body["on"]), onward: true)
        Pictures::Desk.current.gate.pass(nil, 0) { Pictures::Answer.pack({frame: wish.frame}, {picture: Pictures::Kept.current.fetch(wish, size: played(body["size"]))}) }
      end

      # What a screen needs to play frames of the cut by itself, besides their sources.
      app.post "/api/cuts/:id/ladders" do
        body = body_json
        first, count = whole(body, "first"), whole(body, "count")
        most_playing(count, MOST_LADDERS)
        content_type Pictures::Answer::TYPE
        cut = Cut.fetch(params["id"])
        wish = Pictures::Wish.new(cut:, screen: screen(cut.project, body["on"]), trial: trial(body["trial"]))
        played = Pictures::PlayedLadders.new(Pictures::Desk.current, wish, body["held"], reduction(body["size"]))
        ladders = Pictures::Desk.current.gate.pass(nil, 0) { played.of(first...(first + count)) }
        Pictures::Answer.pack({nodes: Mordant::Grade::Ladder::NODES, ladders:}, played.parts)
      end

      # A frame of a shot, counted from its first one, small, or its middle; the address carries all it depends on.
      app.get "/api/shots/:id/small.png" do
        shot = Shot.includes(:recipes, cut: :project).fetch(params["id"])
        content_type "image/png"
        cache_control :private, :immutable, max_age: SMALL_CACHE
        slated(shot.clip, shot.cut.project) do
          Pictures::Desk.current.gate.pass(nil, 0) do
            frame = shot.record_in + (params["frame"] ? number("frame") : [shot.dissolve, shot.length / 2].max).clamp(0, shot.length - 1)
            *, drawn = Pictures::Desk.current.picture(small_wish(shot, frame), size: "small")
            Mordant::Media::Png.encode(drawn, compression: SMALL_COMPRESSION)
          end
        end
      end

      # The same beyond its ends, or slipped, while a hand trims; 404 where its clip has no frame.
      app.get "/api/shots/:id/edge.png" do
        shot = Shot.includes(:recipes, cut: :project, clip: :media_root).fetch(params["id"])
        content_type "image/png"
        cache_control :private, :immutable, max_age: SMALL_CACHE
        offset = number("offset")
        lone = begin
          Pictures::Lone.beyond(shot, offset, slip: params["slip"] ? number("slip") : 0)
        rescue Mordant::ParameterError => e
          halt 404, {error: e.message}.to_json
        end
        slated(shot.clip, shot.cut.project) do
          Pictures::Desk.current.gate.pass(nil, 0) do
            *, drawn = Pictures::Desk.current.picture(small_wish(shot, shot.record_in + offset).with(cut: lone), size: QUICK_SIZE)
            Mordant::Media::Png.encode(drawn, compression: SMALL_COMPRESSION)
          end
        end
      end

      app.helpers do
        # A small picture; a slate, which is not kept, of footage that cannot be read.
        #
        # @yieldreturn [String] PNG
        # @return [String] PNG
        def slated(clip, project)
          yield
        rescue Mordant::MediaError
          cache_control :no_store
          headers Pictures::Absent::HEADER => "1"
          Pictures::Absent.png(clip, Pictures::Desk.raster(project).map { |edge| edge / Pictures::Desk::SMALL_REDUCTION })
        end

        # @return [Integer] of the address
        def number(name)
          Integer(params[name].to_s, 10, exception: false) || raise(Mordant::ParameterError.new(path: name, expected: "a whole number", found: params[name]))
        end

        def most_playing(count, most = MOST_PLAYING)
          raise Mordant::ParameterError.new(path: "count", expected: "1 to #{most}", found: count) unless count.between?(1, most)
        end

        # @return [String] of a picture that is played
        def played(size)
          return size || Pictures::Kept::SIZE if [nil, Pictures::Kept::SIZE, QUICK_SIZE].include?(size)

          raise Mordant::ParameterError.new(path: "size", expected: "#{Pictures::Kept::SIZE} or #{QUICK_SIZE}", found: size)
        end

        def reduction(size) = Pictures::Desk::REDUCTIONS.fetch(played(size))

        # @return [Array<Array>] record frame, shot and codes
        def playing(cut, first, count, reduction)
          (first...(first + count)).filter_map do |frame|
            layer, other = cut.timeline.layers(frame)
            shot = cut.shot(layer.shot.key)
            [frame, shot, Pictures::Desk.current.playing(cut, shot, layer.source_frame, reduction)] unless other
          end
        end

        # A shot at a frame for its own project's screen, of the version asked for.
        def small_wish(shot, frame)
          version = params["recipe"] && shot.recipes.find { |one| one.id == number("recipe") }
          trial = version ? {shot.recipe.id => version.grade} : {}
          Pictures::Wish.new(cut: shot.cut, frame:, screen: screen(shot.cut.project, nil), trial:, source: params["source"] == "1")
        end

        def picture(cut, body)
          started = Process.clock_gettime(Process::CLOCK_MONOTONIC)
          wish = wish(cut, body)
          header, parts = live(wish, body) || computed(wish, body, size(body))
          readings = Pictures::Readings.new(Pictures::Desk.current, wish)
          told = {curves: readings.curves, shapes: readings.shapes, moved: readings.moved, spanned: readings.spanned, course: readings.course(body["course"]), input: readings.input(body["tap"]&.to_s), exposed: readings.exposed(body["tap"]&.to_s, body["patch"]), acting: header[:acting] || readings.acting(body["tap"]&.to_s), key: readings.key(body["key"])}.compact
          took = ((Process.clock_gettime(Process::CLOCK_MONOTONIC) - started) * 1000).round(1)
          Pictures::Answer.pack({frame: wish.frame, sequence: body["sequence"], took:, **told, **header}, parts)
        end

        def wish(cut, body) = Pictures::Asked.wish(cut, body)

        # @return [String] one of Desk::REDUCTIONS; what cannot be live is reduced
        def size(body)
          size = (body["size"] == LIVE) ? "drag" : body.fetch("size", "full")
          return size if Pictures::Desk::REDUCTIONS.key?(size)

          raise Mordant::ParameterError.new(path: "size", expected: [LIVE, *Pictures::Desk::REDUCTIONS.keys].join(", "), found: size)
        end

        # @return [Array(Hash, Hash), nil] what a screen draws with, and the instruments
        def live(wish, body)
          return unless body["size"] == LIVE && !wish.source && wish.still.nil? && body.values_at("acts", "light", "bands", "difference").none?

          made = Pictures::Ladders.new(Pictures::Desk.current, wish, body["ladder"]).moved or return
          header, parts = Pictures::Measuring.new(wish, body, extent: "small").read(made.graded, wish.screen.measured(made.graded))
          [header.merge({size: LIVE, ladder: made.header, acting: made.acting}.compact), parts.merge(made.parts)]
        end

        # @return [Array(Hash, Hash)] a picture and, unless not wanted, the instruments
        def computed(wish, body, size)
          answer = Pictures::Settled.new(wish, body, size).answer
          Pictures::Nearby.current&.after(wish) if size == "full" && body["screen"]
          answer
        end

        def screen(project, document) = Screens.of(project, document)

        def trial(document) = Pictures::Trial.read(document)
      end
    end
  end
end
