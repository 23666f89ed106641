# frozen_string_literal: true

module Mordant
  module Cut
    # Writes edit decision lists in the CMX 3600 format: events of reel, track, transition, source in and out, record
    # in and out; speeds as M2 lines. A reel that is longer than the format's field stands in a comment as well.
    module EDL
      REEL_LENGTH = 8
      BLACK = "BL"

      module_function

      # @param title [String]
      # @param shots [Array<Written>] in order
      # @return [String]
      def write(title, shots)
        drop = shots.any? { |shot| shot.record_in.drop? }
        lines = ["TITLE: #{title}", "FCM: #{"NON-" unless drop}DROP FRAME", ""]
        [nil, *shots].each_cons(2).with_index(1) { |(before, shot), number| lines.concat(event(before, shot, format("%03d", number))) }
        lines.join("\n") << "\n"
      end

      def event(before, shot, head)
        mixed = shot.dissolve.positive? && before
        change = if mixed
          "#{shot.wipe ? format("W%03d", shot.wipe) : "D   "} #{format("%03d", shot.dissolve)}"
        else
          "C"
        end
        [*(still(before, shot, head) if mixed), line(head, shot, change, codes(shot)), *speed(shot), *names(mixed && before, shot), *correction(shot.cdl), ""]
      end

      # What goes, where it has come to: a line of no length.
      def still(before, shot, head)
        at = before.source_in + (before.length * before.speed).floor
        line(head, before, "C", [at, at, shot.record_in, shot.record_in])
      end

      def codes(shot) = [shot.source_from, shot.source_from + (shot.speed.zero? ? shot.length : shot.span), shot.record_in, shot.record_in + shot.length]

      # Frames a second, in as many decimals as they need.
      def speed(shot)
        return if shot.speed == 1.0 || shot.black

        told = format("%.6f", shot.speed * shot.source_in.rate.ceil).sub(/(\.\d+?)0+\z/, "\\1")
        format("M2   %-8s %13s                %s", reel(shot), told, shot.source_in)
      end

      def names(before, shot)
        from = ["* FROM CLIP NAME: #{before.name}"] if before && !before.black
        return from.to_a if shot.black

        [*from, "* #{before ? "TO" : "FROM"} CLIP NAME: #{shot.name}", *("* #{before ? "TO" : "SOURCE"} REEL: #{shot.reel}" if shot.reel && reel(shot) != shot.reel.to_s)]
      end

      # Source: ASC CDL 1.2, transport in edit decision lists.
      def correction(cdl)
        return [] unless cdl

        rows = [cdl.slope, cdl.offset, cdl.power].map { |row| "(#{row.map { |x| format("%.6f", x) }.join(" ")})" }
        ["* ASC_SOP #{rows.join}", format("* ASC_SAT %.6f", cdl.saturation)]
      end

      def line(head, shot, transition, codes) = format("%s  %-8s V     %-8s %s", head, reel(shot), transition, codes.join(" "))

      # Letters and digits, at most eight.
      def reel(shot)
        return BLACK if shot.black

        shot.reel.to_s.upcase.gsub(/[^A-Z0-9_]/, "")[0, REEL_LENGTH].then { |text| text.empty? ? "AX" : text }
      end
    end
  end
end
