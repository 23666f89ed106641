# frozen_string_literal: true

module Mordant
  module Cut
    # Reads edit decision lists as editors write them.
    #
    # Source: the CMX 3600 format: lines of event number, reel, channels, transition, its length,
    # source in and out, record in and out; "FCM:", "TITLE:", "M2" and "*" comments between them.
    class EDLReading
      TIMECODE = /\A(\d{1,2})[:;.,](\d{2})[:;.,](\d{2})([:;.,])(\d{2,3})\z/
      # Comments that name a source. Of a transition FROM is what goes and TO what comes.
      NAMES = [
        [/\A\*?\s*FROM\s+CLIP\s+NAME\s*:\s*(.*)\z/i, :clip, :from],
        [/\A\*?\s*TO\s+CLIP\s+NAME\s*:\s*(.*)\z/i, :clip, :to],
        [/\A\*?\s*(?:KEY\s+)?CLIP\s+NAME\s*:\s*(.*)\z/i, :clip, :to],
        [/\A\*?\s*FROM\s+SOURCE\s+FILE\s*:\s*(.*)\z/i, :file, :from],
        [/\A\*?\s*(?:TO\s+)?SOURCE\s+FILE(?:\s+NAME)?\s*:\s*(.*)\z/i, :file, :to],
        [/\A\*\s*FROM\s+(?:SOURCE\s+)?(?:REEL|TAPE)(?:\s+(?:NAME|ID))?\s*:\s*(.*)\z/i, :reel, :from],
        [/\A\*\s*(?:TO\s+|SOURCE\s+)?(?:REEL|TAPE)(?:\s+(?:NAME|ID))?\s*:\s*(.*)\z/i, :reel, :to]
      ].freeze
      REPLACED = /\bREEL:\s*(\S.*?)\s+REPLACED\s+BY:\s*(\S+)/i
      TRANSITIONS = /\A(?:(C)|(D)|W(\d{1,3})|(K)([BO])?)\z/i
      NOMINAL = [24, 25, 30, 50, 60].freeze # rates that frame numbers allow

      # A line of the list that has timecodes. at: which; drop: how those of its source count; speed: frames a second.
      Line = Struct.new(:number, :reel, :channels, :kind, :wipe, :length, :codes, :at, :drop, :clip, :file, :speed, keyword_init: true)

      # @param path [String] for errors
      # @param text [String]
      # @param rate [Rational, nil]
      def initialize(path, text, rate: nil)
        @path, @text, @rate = path, text, rate
        @lines, @notes, @replaced = [], [], {}
        @title, @drop = nil, nil
      end

      # @return [List]
      # @raise [FormatError]
      def list
        last = 0
        @text.each_line(chomp: true).with_index(1) { |line, at| take(line.strip, last = at) }
        fault([last, 1].max, "events of an edit decision list", "none") if @lines.empty?
        @rate ||= told_rate
        List.new(@path, title: @title || File.basename(@path, ".*"), rate: @rate, events: pictures.filter_map { |lines| event(lines) }, notes: @notes)
      end

      private

      def take(line, at)
        case line
        when "" then nil
        when /\ATITLE\s*:\s*(.*)\z/i then @title ||= $1.strip
        when /\AFCM\s*:\s*(NON[- ]?)?DROP/i then counted(drop: $1.nil?)
        when /\AM2\s+(.+)\z/i then motion($1, at)
        when REPLACED then @replaced[$2.strip] = $1.strip
        when /\A(?:SPLIT\s*:|AUD\b)/i then @notes << "line #{at}: of split sound the picture alone is taken"
        when /\A\d{1,6}\s/ then @lines << line_of(line, at)
        else comment(line, at)
        end
      end

      # Record times are as the first line says, sources as the one before them.
      def counted(drop:)
        @first_drop = drop if @first_drop.nil?
        @drop = drop
      end

      def comment(line, at)
        NAMES.each do |pattern, name, side|
          found = pattern.match(line) or next
          return named(name, side, found[1].strip)
        end
        @notes << "line #{at} was passed over: #{FormatError.shown(line)}" unless line.start_with?("*", "#", ">")
      end

      # Of both lines of a transition the first is what goes.
      def named(name, side, value)
        return if value.empty? || @lines.empty?

        pair = @lines.last(2).select { |one| one.number == @lines.last.number && picture?(one) }
        line = (side == :from) ? pair.first : pair.last
        line ||= @lines.last
        line[name] = value
      end

      def motion(words, at)
        reel, speed = words.match(/\A(?:(.*?)\s+)?([+-]?\d+(?:\.\d+)?)(?:\s+\d{1,2}[:;.]\d{2}.*)?\z/)&.captures
        fault(at, "M2, a reel and frames a second", "M2 #{words}") unless speed
        line = @lines.reverse.find { |one| one.reel.casecmp?(reel.to_s) && picture?(one) } || @lines.last || fault(at, "an event before its speed", "M2 #{words}")
        line.speed = speed.to_r
      end

      def line_of(text, at)
        words = text.split(/\s+/)
        first = words.index { |word| TIMECODE.match?(word) }
        codes = first ? words[first, 4] : []
        fault(at, "an event with four timecodes: source in and out, record in and out", text) unless codes.size == 4 && codes.all? { |word| TIMECODE.match?(word) }
        number, *middle = words[0...first]
        length = middle.pop if middle.last&.match?(/\A\d{1,4}\z/) && middle.size > 3
        middle = [*middle[0..-3], middle.last(2).join] if middle.last(2).join.match?(/\AK[BO]\z/i) && middle.size > 3
        kind = TRANSITIONS.match(middle.pop.to_s) or fault(at, "a transition: C, D, W and a number, K, KB or KO", text)
        channels, reel = middle.pop, middle.join(" ")
        fault(at, "event number, reel, channels, transition and four timecodes", text) if channels.nil? || reel.empty?
        Line.new(number:, reel:, channels: channels.upcase, kind: kind_of(kind), wipe: kind[3]&.to_i, length: length.to_i, codes:, at:, drop: @drop)
      end

      def kind_of(match)
        return "cut" if match[1] || match[5]&.casecmp?("B")
        return "dissolve" if match[2]

        match[3] ? "wipe" : "key"
      end

      # V, B (both), AV, AA/V; V2 and up are layers over the picture.
      def picture?(line) = line.channels == "B" || line.channels.match?(/V1?(?!\d)/)

      # @return [Array<Array<Line>>] the lines of each event, those of sound left out
      def pictures
        heard, seen = @lines.partition { |line| !picture?(line) }
        heard.group_by(&:channels).each { |channels, lines| @notes << "#{(lines.size == 1) ? "event" : "events"} #{lines.map { |line| line.number.to_i }.uniq.join(", ")}: #{channels.match?(/V/) ? "a layer over the picture (#{channels})" : "sound alone (#{channels})"}, passed over" }
        fault(@lines.first.at, "an event with picture (V or B)", "none") if seen.empty?
        seen.chunk_while { |a, b| a.number == b.number }.flat_map { |lines| sides(lines) }
      end

      # What goes is a line of no length before its transition; others of the same number are events of their own.
      def sides(lines)
        lines.chunk_while { |a, _| empty?(a) }.to_a
      end

      def empty?(line) = line.codes[2].tr(";.,", ":") == line.codes[3].tr(";.,", ":")

      def event(lines)
        line = lines.last
        if empty?(line)
          @notes << "event #{line.number.to_i} has no length, passed over"
          return
        end
        source_in, source_out = line.codes.first(2).map { |code| timecode(code, line, line.drop) }
        record_in, record_out = line.codes.last(2).map { |code| timecode(code, line, @first_drop) }
        length = record_out.frames - record_in.frames
        fault(line.at, "record out after record in, #{record_in}", record_out.to_s) unless length.positive?
        fault(line.at, "a transition no longer than its event, #{length} frames", line.length) if line.length > length
        List::Event.new(number: line.number.to_i, reel: @replaced.fetch(line.reel, line.reel), clip: line.clip || line.file, file: line.file, transition: transition(line, lines),
          source_in:, source_out:, record_in:, record_out:, speed: speed(line, source_in, source_out, length), line: line.at)
      end

      def transition(line, lines)
        return List::CUT if line.kind == "cut"

        @notes << "event #{line.number.to_i} is keyed over what lies under it" if line.kind == "key"
        List::Transition.new(kind: line.kind, length: line.length, wipe: line.wipe, black: lines.size > 1 && List.black?(lines[-2].reel))
      end

      # Without one it is told by the lengths.
      def speed(line, source_in, source_out, length)
        there = source_out.frames - source_in.frames
        return told_speed(line, there, length) if line.speed

        fault(line.at, "source out after source in, #{source_in}, or an M2 line with a speed below 0", source_out.to_s) if there.negative?
        return 1r if there == length || List.black?(line.reel)

        @notes << "event #{line.number.to_i}: #{there} frames of source for #{length} of record without a speed; taken as #{(there.to_r / length).to_f.round(3)} times"
        there.to_r / length
      end

      def told_speed(line, there, length)
        speed = line.speed / @rate.ceil
        if (there.abs - (length * speed).abs).abs > [1, speed.abs].max && there != length
          @notes << "event #{line.number.to_i}: its speed of #{speed.to_f.round(3)} and its lengths, #{there} frames of source for #{length} of record, do not agree; the speed is taken"
        end
        speed
      end

      def timecode(code, line, drop)
        match = TIMECODE.match(code)
        dropping = (match[4] == ";" || drop) && @rate.denominator == 1001 && (@rate.ceil % 30).zero?
        text = format("%02d:%s:%s%s%s", match[1].to_i, match[2], match[3], dropping ? ";" : ":", match[5])
        Timecode.parse(text, @rate)
      rescue ParameterError => e
        fault(line.at, "a timecode #{e.expected}", code)
      end

      # A list does not tell its rate.
      def told_rate
        drop = @first_drop || @lines.any? { |line| line.codes.any? { |code| TIMECODE.match(code)[4] == ";" } }
        most = @lines.flat_map { |line| line.codes.map { |code| TIMECODE.match(code)[5].to_i } }.max
        nominal = drop ? [30, most + 1].max : NOMINAL.find { |rate| most < rate }
        fault(@lines.first.at, "frame numbers below 60", most) unless nominal && nominal <= 60
        rate = if drop
          Rational((nominal > 30) ? 60_000 : 30_000, 1001)
        else
          nominal.to_r
        end
        @notes << "the list does not tell its rate: #{drop ? "drop frame, so #{rate}" : "#{rate.to_i}, the lowest that its frame numbers allow,"} was taken"
        rate
      end

      def fault(line, expected, found) = raise(FormatError.new(path: @path, line:, expected:, found:))
    end
  end
end
