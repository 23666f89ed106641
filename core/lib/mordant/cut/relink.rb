# frozen_string_literal: true

module Mordant
  module Cut
    # Finds the footage that events of a list are of: by reel and timecode, then by file name, then by
    # clip name. The first rule under which anything is found decides; what several files fit is left to a person.
    class Relink
      RULES = ["reel and timecode", "file name", "clip name"].freeze
      REEL = 8 # characters of a reel that a CMX 3600 list holds

      # Footage. start: Timecode of its first frame, or nil; frames: how many.
      Footage = Struct.new(:path, :reel, :start, :frames, :rate, keyword_init: true) do
        def name = File.basename(path)

        def stem = File.basename(path, ".*")
      end

      # What an event is linked to. footage: nil where there is none or more than one; rule: by which of RULES, or
      # "black"; source_in: frame of the footage; candidates: Footage that may be meant; reason: why none is taken.
      Link = Struct.new(:footage, :rule, :source_in, :candidates, :reason, keyword_init: true) do
        # @return [Hash] for JSON
        def to_h
          shown = ->(one) { Relink.text(one.path) }
          return {"rule" => rule} if rule == "black"
          return {"file" => shown[footage], "rule" => rule, "frame" => source_in} if footage

          {"file" => nil, "reason" => reason, "candidates" => candidates.map(&shown)}
        end
      end

      # @param name [String] as the disk has it
      # @return [String] UTF-8
      def self.text(name) = name.dup.force_encoding("UTF-8").scrub("?")

      # @param footage [Array<Footage>]
      def initialize(footage)
        @footage = footage
        @reels = footage.group_by { |one| short(one.reel) }.except("")
        @names = footage.group_by { |one| plain(one.name) }
        @stems = footage.group_by { |one| plain(one.stem) }
      end

      # @param event [List::Event]
      # @return [Link]
      def link(event)
        return Link.new(rule: "black", candidates: []) if event.black?

        tried = {RULES[0] => by_reel(event), RULES[1] => by_name(event), RULES[2] => by_clip(event)}.reject { |_, found| found.empty? }
        reasons = tried.map do |rule, found|
          fitting = found.filter_map { |one| at(one, event, rule)&.then { |frame| [one, frame] } }
          return Link.new(footage: fitting[0][0], rule:, source_in: fitting[0][1], candidates: []) if fitting.one?
          return Link.new(candidates: fitting.map(&:first), reason: "#{fitting.size} files fit by #{rule}") if fitting.any?

          "#{found.map(&:name).first(3).join(", ")} by #{rule}: without the frames from #{event.source_in} to #{event.source_out}"
        end
        Link.new(candidates: tried.values.flatten.uniq, reason: reasons.empty? ? "nothing has the reel #{event.reel}#{" or the name #{event.clip || event.file}" if event.clip || event.file}" : reasons.join("; "))
      end

      private

      # A list that cuts reels off names the beginning.
      def by_reel(event)
        found = @reels.fetch(short(event.reel), [])
        exact = found.select { |one| plain(one.reel) == plain(event.reel) }
        exact.empty? ? found : exact
      end

      def by_name(event) = [event.file, event.clip].compact.flat_map { |name| @names.fetch(plain(name), []) }.uniq

      def by_clip(event) = [event.clip, event.file].compact.flat_map { |name| @stems.fetch(plain(name), []) | @stems.fetch(plain(File.basename(name, ".*")), []) }.uniq

      # @return [Integer, nil] frame of the footage at which the event begins, where it holds all of the event
      def at(one, event, rule)
        first = from_timecode(one, event)
        first ||= event.source_in.frames if rule != RULES[0] && one.start.nil?
        first if first && first >= 0 && first + [span(event, one), 1].max <= one.frames
      end

      def from_timecode(one, event) = one.start && event.source_in.at(one.rate).frames - one.start.frames

      def span(event, one) = ((event.source_out.frames - event.source_in.frames).abs * one.rate / event.source_in.rate).floor

      def plain(name) = Relink.text(name.to_s).unicode_normalize(:nfc).downcase.strip

      def short(reel) = reel.to_s.upcase.gsub(/[^A-Z0-9]/, "")[0, REEL].to_s
    end
  end
end
