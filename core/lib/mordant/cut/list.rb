# frozen_string_literal: true

module Mordant
  module Cut
    # A cut list as somebody's edit gave it: the events of its picture, in the order of their record
    # times, and what of it was passed over. Immutable.
    class List
      LARGEST_FILE = 64 * 1024 * 1024 # bytes

      # How an event begins. kind: one of KINDS; length: frames from the event's first one, 0 of a cut; wipe: number of
      # its pattern, or nil; black: what goes is black, whatever stands before.
      Transition = Struct.new(:kind, :length, :wipe, :black, keyword_init: true) do
        def to_h = {"kind" => kind, "length" => length, "wipe" => wipe}
      end
      KINDS = %w[cut dissolve wipe key].freeze
      CUT = Transition.new(kind: "cut", length: 0).freeze

      # A stretch of one source. number: as the list counts; file: a file's name, where one is told; source_in, source_out,
      # record_in, record_out: Timecode, ends not included; speed: frames of source for one of record, negative runs
      # backwards, 0 stands still; line: of the list, nil where it has none.
      Event = Struct.new(:number, :reel, :clip, :file, :transition, :source_in, :source_out, :record_in, :record_out, :speed, :line, keyword_init: true) do
        # @return [Integer] frames
        def length = record_out.frames - record_in.frames

        # @return [Boolean] no source stands behind it
        def black? = List.black?(reel)

        # @return [Hash] for JSON
        def to_h
          codes = %i[source_in source_out record_in record_out].to_h { |name| [name.to_s, self[name].to_s] }
          {"number" => number, "reel" => reel, "clip" => clip || file, "transition" => transition.to_h, **codes, "speed" => speed.to_f.round(6)}
        end
      end

      BLACK = %w[BL BLK BLACK].freeze

      # @return [Boolean] the reel stands for no picture
      def self.black?(reel) = BLACK.include?(reel.to_s.upcase)

      # Reads a CMX 3600 list or an OpenTimelineIO file, whichever it is.
      #
      # @param path [String]
      # @param rate [Rational, nil] frames a second of an edit decision list, which does not tell them
      # @return [List]
      # @raise [FormatError] naming the line, what was expected and what stands there
      # @raise [MediaError] of a file that is not there or too large
      def self.read(path, rate: nil)
        raise MediaError.new(path, "the file is not there") unless File.file?(path)
        raise MediaError.new(path, "larger than #{LARGEST_FILE / 1024 / 1024} MB") if File.size(path) > LARGEST_FILE

        parse(path, text(File.binread(path)), rate:)
      end

      # @param path [String] for errors
      # @param text [String] UTF-8
      # @return [List]
      def self.parse(path, text, rate: nil)
        (text.lstrip.start_with?("{") ? OpenTimelineReading : EDLReading).new(path, text, rate:).list
      end

      # @param bytes [String] UTF-8, UTF-16 with a mark of its order, or Latin-1
      # @return [String] UTF-8, with lines that end alike and no mark of the file's end
      def self.text(bytes) = decoded(bytes.b).encode(universal_newline: true).delete_suffix("\u001A")

      def self.decoded(bytes)
        return bytes.force_encoding("UTF-16").encode("UTF-8", invalid: :replace, undef: :replace) if bytes.start_with?("\xFE\xFF".b, "\xFF\xFE".b)

        bytes = bytes.delete_prefix("\xEF\xBB\xBF".b)
        utf8 = bytes.dup.force_encoding("UTF-8")
        utf8.valid_encoding? ? utf8 : bytes.force_encoding("ISO-8859-1").encode("UTF-8")
      end
      private_class_method :decoded

      # @return [String]
      attr_reader :title
      # @return [Rational]
      attr_reader :rate
      # @return [Array<Event>]
      attr_reader :events
      # @return [Array<String>] what was passed over, and what is odd
      attr_reader :notes

      # @param path [String] for errors
      # @raise [FormatError] of events that overlap
      def initialize(path, title:, rate:, events:, notes: [])
        @path, @title, @rate = path, title, rate
        @events = events.each_with_index.sort_by { |event, index| [event.record_in.frames, index] }.map(&:first).freeze
        @notes = notes + odd(events)
        check
        @notes.freeze
        freeze
      end

      # @return [Hash] for JSON
      def to_h = {"title" => title, "rate" => "#{rate.numerator}/#{rate.denominator}", "events" => events.map(&:to_h), "notes" => notes}

      private

      def odd(events)
        gaps = @events.each_cons(2).filter_map do |a, b|
          gap = b.record_in.frames - a.record_out.frames
          "#{gap} frames of black between events #{a.number} and #{b.number}" if gap.positive?
        end
        [*("events stand in another order than their record times; they are taken by record time" if events != @events), *gaps]
      end

      def check
        @events.each_cons(2) do |a, b|
          next if b.record_in >= a.record_out || b.transition.kind == "key"

          raise FormatError.new(path: @path, line: b.line || 1, expected: "event #{b.number} to begin at #{a.record_out} or later, where event #{a.number}#{" of line #{a.line}" if a.line} ends", found: b.record_in.to_s)
        end
      end
    end
  end
end
