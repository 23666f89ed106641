# frozen_string_literal: true

module Mordant
  module Cut
    # The CDLs that comments of an edit decision list carry.
    #
    # Source: ASC CDL 1.2, transport in edit decision lists: "* ASC_SOP (s s s)(o o o)(p p p)"
    # and "* ASC_SAT n" after the event they belong to.
    class EDLCorrections
      LARGEST_FILE = 16 * 1024 * 1024 # bytes
      EVENT = /\A(\d{1,6})\s+(\S+)\s+\S+\s+\S+/
      # Clip name is that of the incoming side of a dissolve.
      Correction = Struct.new(:event, :reel, :clip_name, :cdl, keyword_init: true)

      # @param path [String]
      # @return [Array<Correction>] of the events that have one
      # @raise [FormatError, MediaError]
      def self.read(path)
        raise MediaError.new(path, "the file is not there") unless File.file?(path)
        raise MediaError.new(path, "larger than #{LARGEST_FILE / 1024 / 1024} MB") if File.size(path) > LARGEST_FILE

        new(path, File.read(path, encoding: "UTF-8").scrub).corrections
      end

      # @param path [String] for errors
      def initialize(path, text)
        @path, @text = path, text
        @events = []
      end

      # @return [Array<Correction>]
      def corrections
        last = 0
        @text.each_line.with_index(1) { |line, number| take(line.strip, last = number) }
        fault([last, 1].max, "events of an edit decision list", "none") if @events.empty?
        @events.select { |event| event[:slope] || event[:saturation] }.map { |event| made(event) }
      end

      private

      def take(line, number)
        case line
        when EVENT then open_event($1, $2)
        when /\A\*\s*(?:FROM|TO) CLIP NAME:\s*(.+)\z/i then @events.last&.store(:clip_name, $1.strip)
        when /\A\*\s*ASC[_ ]SOP\b:?\s*(.*)\z/i then current(number).update(sop($1, number))
        when /\A\*\s*ASC[_ ]SAT\b:?\s*(.*)\z/i then current(number)[:saturation] = numbers($1, 1, number).first
        end
      end

      # Both lines of a dissolve have the number of one event.
      def open_event(event, reel)
        same = @events.last && @events.last[:event] == event
        same ? @events.last[:reel] = reel : @events << {event:, reel:}
      end

      def current(number) = @events.last || fault(number, "an event before its correction", "a correction")

      def sop(text, number)
        rows = text.scan(/\(([^()]*)\)/).flatten
        fault(number, "(s s s)(o o o)(p p p) after ASC_SOP", text) unless rows.size == 3 && text.gsub(/\([^()]*\)/, "").strip.empty?
        %i[slope offset power].zip(rows).to_h { |name, row| [name, numbers(row, 3, number)] }.merge(line: number)
      end

      def numbers(text, count, number)
        found = text.split(/[\s,]+/).reject(&:empty?).map { |word| Float(word, exception: false) }
        return found if found.size == count && found.all? { |x| x&.finite? }

        fault(number, "#{count} finite #{(count == 1) ? "number" : "numbers"}", text)
      end

      def made(event)
        cdl = Colour::CDL.new(**event.slice(:slope, :offset, :power, :saturation), id: event[:event])
        Correction.new(event: event[:event], reel: event[:reel], clip_name: event[:clip_name], cdl:)
      rescue ParameterError => e
        fault(event[:line] || 1, "#{e.path} to be #{e.expected}", e.found)
      end

      def fault(line, expected, found) = raise(FormatError.new(path: @path, line:, expected:, found:))
    end
  end
end
