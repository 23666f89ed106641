# frozen_string_literal: true

module Mordant
  module Cut
    # Edit decision lists in the CMX 3600 format: events of reel, track,
    # transition, source in and out, record in and out.
    module EDL
      # One event to write. Timecodes; dissolve in frames, 0 for a cut; before is the
      # outgoing side of a dissolve; cdl a correction that goes along as comments, or nil.
      Event = Struct.new(:reel, :source_in, :source_out, :record_in, :record_out, :clip_name, :dissolve,
        :before, :cdl, keyword_init: true)

      REEL_LENGTH = 8

      module_function

      # @param title [String]
      # @param events [Array<Event>]
      # @return [String]
      def write(title, events)
        drop = events.any? { |event| event.record_in.drop? }
        lines = ["TITLE: #{title}", "FCM: #{"NON-" unless drop}DROP FRAME", ""]
        events.each_with_index { |event, index| lines.concat(event_lines(event, index + 1)) }
        lines.join("\n") << "\n"
      end

      def event_lines(event, number)
        head = format("%03d", number)
        return [line(head, event, "C"), "* FROM CLIP NAME: #{event.clip_name}", *correction(event.cdl), ""] if event.dissolve.zero?

        still = Event.new(**event.before.to_h.merge(source_in: event.before.source_out, record_in: event.record_in,
          record_out: event.record_in))
        [line(head, still, "C"), line(head, event, format("D    %03d", event.dissolve)),
          "* FROM CLIP NAME: #{event.before.clip_name}", "* TO CLIP NAME: #{event.clip_name}", *correction(event.cdl), ""]
      end

      # Source: ASC CDL 1.2, transport in edit decision lists.
      def correction(cdl)
        return [] unless cdl

        rows = [cdl.slope, cdl.offset, cdl.power].map { |row| "(#{row.map { |x| format("%.6f", x) }.join(" ")})" }
        ["* ASC_SOP #{rows.join}", format("* ASC_SAT %.6f", cdl.saturation)]
      end

      def line(head, event, transition)
        codes = [event.source_in, event.source_out, event.record_in, event.record_out].join(" ")
        format("%s  %-8s V     %-8s %s", head, reel(event.reel), transition, codes)
      end

      # Letters and digits, at most eight.
      def reel(name) = name.to_s.upcase.gsub(/[^A-Z0-9_]/, "")[0, REEL_LENGTH].then { |text| text.empty? ? "AX" : text }
    end
  end
end
