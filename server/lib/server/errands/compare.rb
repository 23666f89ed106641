# frozen_string_literal: true

module Server
  module Errands
    # Looks where the programme that lies under a cut plainly shows other pictures than the cut.
    class Compare
      AROUND = Mordant::Cut::Agreement::REACH # frames of the source beside those of the shot

      # @param cut [Cut]
      # @raise [Mordant::ParameterError] of a cut without a programme
      def initialize(cut, _wish)
        @cut = cut
        @programme = cut.reference_clip || raise(Mordant::ParameterError.new(path: "programme", expected: "a cut with a reference programme", found: "none"))
        @programme.association(:project).target = cut.project
      end

      def count = @cut.timeline.length

      def single? = true

      # @return [Hash] disagreements, and how many frames the programme is longer than the cut
      # @raise [Mordant::MediaError]
      def call(_errand)
        found = @cut.loaded_shots.flat_map { |shot| of(shot).tap { yield shot.record_in + shot.length } }
        {disagreements: found, longer: @programme.frames - @cut.reference_offset - @cut.timeline.length, offset: @cut.reference_offset, edition: @cut.edition}
      end

      def self.forget(_errand) = nil

      private

      def of(shot)
        return [] if shot.clip.placeholder?

        place = shot.place
        records = alone(shot).select { |record| (0...@programme.frames).cover?(record + @cut.reference_offset) }
        return [outside(shot)] if records.empty?

        wanted = records.map { |record| place.source_at(record) }
        from, to = [wanted.min - AROUND, 0].max, [wanted.max + AROUND, shot.clip.frames - 1].min
        programme = frames(@programme, records.first + @cut.reference_offset, records.size)
        Mordant::Cut::Agreement.of(programme, frames(shot.clip, from, to - from + 1), wanted.map { |frame| frame - from }).map { |one| told(shot, records, one) }
      end

      # Record frames that show the shot and nothing else.
      def alone(shot) = ((shot.record_in + shot.dissolve)...(shot.record_in + shot.length)).to_a

      def frames(clip, first, count)
        [].tap { |list| clip.reader.each(first:, count:, width: Mordant::Cut::Agreement::WIDTH, height: Mordant::Cut::Agreement::HEIGHT) { |codes| list << codes } }
      end

      def outside(shot) = {shot: shot.id, name: shot.name, kind: "length", record: shot.record_in, timecode: @cut.timecode(shot.record_in).to_s, count: shot.length, by: 0, words: "the programme has no such frames"}

      def told(shot, records, one)
        record = records.first + one.first
        {shot: shot.id, name: shot.name, kind: one.kind, record:, timecode: @cut.timecode(record).to_s, count: one.count, by: one.by, words: words(one)}
      end

      def words(one)
        case one.kind
        when "flop" then "the programme shows it flopped, left for right"
        when "slip" then "the programme shows frames #{one.by.abs} #{one.by.positive? ? "later" : "earlier"}"
        when "speed" then "the programme runs it at #{(one.by * 100).round} %"
        when "cut" then "the edit lies #{one.by.abs} frames #{one.by.positive? ? "later" : "earlier"} in the programme"
        else "the programme shows another picture"
        end
      end
    end
  end
end
