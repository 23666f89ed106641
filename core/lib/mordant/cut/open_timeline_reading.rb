# frozen_string_literal: true

require "json"

module Mordant
  module Cut
    # Reads OpenTimelineIO files: the picture of a timeline, as events.
    #
    # Source: OpenTimelineIO, serialized schema (Timeline.1, Stack.1, Track.1, Clip.1 and .2, Gap.1,
    # Transition.1, LinearTimeWarp.1, FreezeFrame.1). A file is checked as it is walked; places are told as
    # "tracks.children[0].children[2]".
    class OpenTimelineReading
      include OpenTimelineValues

      DEEPEST = 16
      FALLBACK_RATE = 24r

      # A stretch of what is seen. Frames of the record rate; item: its clip, nil where nothing is; start: seconds into the
      # source; transition: how it begins.
      Piece = Struct.new(:first, :length, :item, :start, :speed, :transition, :place, keyword_init: true)

      # @param path [String] for errors
      # @param text [String] JSON
      # @param rate [Rational, nil] of the record, instead of the file's own
      def initialize(path, text, rate: nil)
        @path, @text, @rate = path, text, rate
        @notes = []
      end

      # @return [List]
      # @raise [FormatError]
      def list
        document = parsed
        fault("a Timeline.1", document["OTIO_SCHEMA"]) unless schema?(document, "Timeline")
        @rate ||= rate_of(document)
        @start = document["global_start_time"] ? frames(document["global_start_time"], "global_start_time") : 0
        pieces = stack(document["tracks"], "tracks", nil, 0).select { |piece| piece.item || piece.transition }
        fault("a timeline with clips in a track of video", "none") if pieces.none?(&:item)
        List.new(@path, title: document["name"].to_s, rate: @rate, events: pieces.each_with_index.map { |piece, index| event(piece, index + 1) }, notes: @notes.uniq)
      end

      private

      def parsed
        JSON.parse(@text, max_nesting: 200).tap { |document| fault("a JSON object", document) unless document.is_a?(Hash) }
      rescue JSON::ParserError => e
        raise FormatError.new(path: @path, line: e.message[/line (\d+)/, 1]&.to_i || 1, expected: "JSON", found: e.message[0, 120])
      end

      def schema?(document, *names) = document.is_a?(Hash) && names.include?(document["OTIO_SCHEMA"].to_s[/\A\w+/])

      # What is seen of tracks over each other: the topmost that has something there.
      #
      # @return [Array<Piece>] that follow one another
      def stack(document, place, range, depth)
        fault("a Stack.1 at #{place}", document) unless schema?(document, "Stack")
        fault("stacks within each other at most #{DEEPEST} deep", place) if depth > DEEPEST
        layers = list_of(document, "children", place).each_with_index.filter_map { |child, index| layer(child, "#{place}.children[#{index}]", depth) }
        layers.reduce { |under, over| laid(under, over) }.to_a.then { |pieces| range ? cut(pieces, *range) : pieces }
      end

      def layer(child, place, depth)
        return if child["enabled"] == false
        if schema?(child, "Track") && child["kind"].to_s != "Video"
          @notes << "#{place}: a track of #{child["kind"].to_s.downcase}, passed over" if list_of(child, "children", place).any?
          return
        end
        schema?(child, "Track") ? track(child, place, depth) : item(child, place, 0, depth)
      end

      # @return [Array<Piece>]
      def track(document, place, depth)
        at, pieces, begins = 0, [], nil
        list_of(document, "children", place).each_with_index do |child, index|
          here = "#{place}.children[#{index}]"
          if schema?(child, "Transition")
            begins = transition(child, here)
            next
          end
          made = item(child, here, at, depth)
          made = joined(pieces, made, begins) if begins && made.any?
          begins = nil
          pieces.concat(made)
          at = made.last.first + made.last.length if made.any?
        end
        range = document["source_range"] && range_of(document["source_range"], "#{place}.source_range")
        range ? cut(pieces, *range) : pieces
      end

      # What goes ends where the transition begins, and what comes begins there.
      def joined(pieces, made, begins)
        ahead, kind, length, wipe = begins
        head, before = made.first, pieces.last
        if ahead.positive? && before
          ahead = [ahead, before.length].min
          before.length -= ahead
          head.first -= ahead
          head.length += ahead
          head.start -= ahead * head.speed / @rate if head.item && !backwards?(head)
        end
        head.transition = List::Transition.new(kind:, length: [length, head.length].min, wipe:, black: before.nil? || before.item.nil?)
        pieces.pop if before&.length&.zero?
        made
      end

      # @return [Array] frames before the edit, kind, whole length
      def transition(document, place)
        ahead, behind = %w[in_offset out_offset].map { |name| document[name] ? frames(document[name], "#{place}.#{name}") : 0 }
        type = document["transition_type"].to_s
        wipe = [type, document["name"].to_s].find { |text| text.match?(/wipe/i) }
        @notes << "#{place}: a transition #{FormatError.shown(type)}, taken as a dissolve" unless type == "SMPTE_Dissolve" || wipe
        [ahead, wipe ? "wipe" : "dissolve", ahead + behind, wipe && pattern(document, wipe)]
      end

      # @return [Integer, nil] number of a wipe's pattern
      def pattern(document, words)
        told = document["metadata"].is_a?(Hash) ? document["metadata"]["smpte_wipe"] : nil
        told.is_a?(Integer) ? told : words[/\d+/]&.to_i
      end

      # @return [Array<Piece>] of a child of a track, from a record frame on
      def item(child, place, at, depth)
        fault("a clip, gap, stack or track at #{place}", child) unless child.is_a?(Hash)
        case child["OTIO_SCHEMA"].to_s[/\A\w+/]
        when "Gap" then [Piece.new(first: at, length: range_of(child["source_range"], "#{place}.source_range")[1], place:)].reject { |piece| piece.length.zero? }
        when "Clip" then clip(child, place, at)
        when "Stack" then moved(stack(child, place, child["source_range"] && range_of(child["source_range"], place), depth + 1), at)
        when "Track" then moved(track(child, place, depth + 1), at)
        else
          @notes << "#{place}: #{FormatError.shown(child["OTIO_SCHEMA"])}, passed over"
          []
        end
      end

      def clip(child, place, at)
        range = child["source_range"] || reference(child)["available_range"]
        fault("a source_range or an available_range at #{place}", nil) unless range
        length = range_of(range, "#{place}.source_range")[1]
        speed = speed_of(child, place)
        return [] if length.zero?

        item = child.merge("speed" => speed)
        [Piece.new(first: at, length:, item: (child["enabled"] == false) ? nil : item, start: seconds(range["start_time"], "#{place}.source_range.start_time"), speed:, place:)]
      end

      def speed_of(child, place)
        Array(child["effects"]).reduce(1r) do |speed, effect|
          case effect.is_a?(Hash) && effect["OTIO_SCHEMA"].to_s[/\A\w+/]
          when "LinearTimeWarp" then speed * number(effect["time_scalar"], "#{place}.effects.time_scalar")
          when "FreezeFrame" then 0r
          else
            @notes << "#{place}: an effect #{FormatError.shown(effect.is_a?(Hash) ? effect["effect_name"] || effect["OTIO_SCHEMA"] : effect)}, passed over"
            speed
          end
        end
      end

      def reference(child)
        found = child["media_reference"] || child.dig("media_references", child["active_media_reference_key"] || "DEFAULT_MEDIA")
        found.is_a?(Hash) ? found : {}
      end

      def moved(pieces, by) = pieces.map { |piece| piece.dup.tap { |one| one.first += by } }

      # From a frame on, so many, counted from there; black where they end before.
      def cut(pieces, from, length)
        kept = pieces.filter_map { |piece| after(piece, from)&.then { |rest| before(rest, from + length) } }
        kept = moved(kept, -from)
        filled = kept.empty? ? 0 : kept.last.first + kept.last.length
        (filled < length) ? [*kept, Piece.new(first: filled, length: length - filled)] : kept
      end

      # One track over another: what lies under is seen where nothing lies over it.
      def laid(under, over)
        seen = over.select(&:item)
        @notes << "#{seen.size} #{(seen.size == 1) ? "clip lies" : "clips lie"} over the lowest track and #{(seen.size == 1) ? "is" : "are"} taken instead of what is under it" if seen.any?
        left = seen.reduce(under) do |pieces, top|
          pieces.flat_map { |piece| [before(piece, top.first), after(piece, top.first + top.length)].compact }
        end
        (left + seen).sort_by(&:first)
      end

      def before(piece, edge)
        return piece if piece.first + piece.length <= edge

        return unless piece.first < edge

        piece.dup.tap do |one|
          one.length = edge - piece.first
          one.start -= (piece.length - one.length) * one.speed / @rate if backwards?(one)
          begin_with_a_cut(one) if one.transition && one.transition.length > one.length
        end
      end

      def after(piece, edge)
        ahead = edge - piece.first
        return if ahead >= piece.length

        ahead.positive? ? later(piece, ahead) : piece
      end

      # Without its first frames.
      def later(piece, ahead)
        piece.dup.tap do |one|
          one.first, one.length = piece.first + ahead, piece.length - ahead
          one.start += ahead * one.speed / @rate if one.item && !backwards?(one)
          begin_with_a_cut(one) if one.transition
        end
      end

      # Of a piece whose transition is not seen whole.
      def begin_with_a_cut(piece)
        @notes << "#{piece.place}: only a part of its #{piece.transition.kind} is seen, a cut was taken"
        piece.transition = nil
      end

      # It shows the last of its frames first, so that its start is where it ends.
      def backwards?(piece) = !piece.item.nil? && piece.speed.negative?

      def event(piece, number)
        return black(piece, number) if piece.item.nil? || black?(reference(piece.item))

        child, reference = piece.item, reference(piece.item)
        rate = source_rate(child, reference)
        first = (piece.start * rate).round
        @notes << "event #{number}: it begins #{-first} frames before its source does" if first.negative?
        source = [first, first + (piece.length * piece.speed.abs / @rate * rate).round].map { |frame| Timecode.new(frame, rate) }
        record = [piece.first, piece.first + piece.length].map { |frame| Timecode.new(@start + frame, @rate) }
        @notes << "event #{number}: its source runs at #{rate.to_f.round(3)}, the timeline at #{@rate.to_f.round(3)}" unless rate == @rate
        List::Event.new(number:, reel: reel(child, reference), clip: child["name"].to_s.empty? ? file(reference) : child["name"], file: file(reference), transition: piece.transition || List::CUT,
          source_in: source[0], source_out: source[1], record_in: record[0], record_out: record[1], speed: piece.speed)
      end

      # A gap that something is mixed with, or black that is generated.
      def black(piece, number)
        source, record = [0, @start + piece.first].map { |first| [first, first + piece.length].map { |frame| Timecode.new(frame, @rate) } }
        List::Event.new(number:, reel: List::BLACK.first, transition: piece.transition || List::CUT, source_in: source[0], source_out: source[1], record_in: record[0], record_out: record[1], speed: 1r)
      end

      def black?(reference) = schema?(reference, "GeneratorReference") && reference["generator_kind"].to_s.match?(/black/i)

      def file(reference)
        return "#{reference["name_prefix"]}#{reference["name_suffix"]}" if schema?(reference, "ImageSequenceReference")

        reference["target_url"]&.then { |url| File.basename(url.to_s) }
      end

      # The first name of a reel or tape that what goes along says.
      def reel(child, reference)
        [reference["metadata"], child["metadata"]].filter_map { |data| named(data, 0) }.first
      end

      def named(data, depth)
        return unless data.is_a?(Hash) && depth < 6

        own = data.find { |key, value| key.to_s.match?(/\A(?:reel|tape)(?:[ _]?(?:name|id))?\z/i) && value.is_a?(String) && !value.empty? }
        own ? own[1] : data.values.filter_map { |value| named(value, depth + 1) }.first
      end

      def source_rate(child, reference)
        time = reference.dig("available_range", "start_time") || child.dig("source_range", "start_time")
        (time && time["rate"]) ? rate(time["rate"], "rate") : @rate
      end

      def rate_of(document)
        found = document["global_start_time"] || times(document["tracks"], 0)
        return rate(found["rate"], "global_start_time.rate") if found.is_a?(Hash)

        @notes << "the file does not tell its rate; 24 was taken"
        FALLBACK_RATE
      end

      # The first time that is counted in it: a duration of the first track.
      def times(document, depth)
        return unless document.is_a?(Hash) && depth < DEEPEST

        document.dig("source_range", "duration") || Array(document["children"]).filter_map { |child| times(child, depth + 1) }.first
      end

      def fault(expected, found) = raise(FormatError.new(path: @path, line: 1, expected:, found:))
    end
  end
end
