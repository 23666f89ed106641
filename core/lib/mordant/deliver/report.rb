# frozen_string_literal: true

require "cgi"
require "json"

module Mordant
  module Deliver
    # What a check found, for people and for programs.
    class Report
      # @param facts [Hash{Symbol => Object}] name, statement, from, and what Check#call found; also
      #   beyond, [record, share] of pixels that codes cannot say, and light, see LightLevels
      # @param place [#call] record frame to [shot, timecode]
      def initialize(facts, place:)
        @facts, @place = facts, place
      end

      # @return [Array<Hash>]
      def checksums = @facts[:checksums]

      # @return [Array<String>] what is wrong, in words
      def faults
        words = {missing: "not there", undecodable: "cannot be decoded", lost: "left out, as the source could not be decoded",
                 earlier: "shows the picture before", later: "shows the picture after", other: "shows another picture than it should"}
        words.flat_map { |key, said| @facts.fetch(key, []).map { |first, count| "#{stretch(first, count)} #{said}" } }
      end

      # @return [Array<String>] what somebody should look at
      def notices
        black = @facts[:black].map { |first, count| "#{stretch(first, count)} black" }
        unproven = @facts.fetch(:unproven, []).map { |first, count| "#{stretch(first, count)} could not be compared with its source, which cannot be read any more" }
        black + still + beyond + unproven
      end

      def to_h
        @facts.except(:beyond, :checksums).merge(faults:, notices:, files: @facts[:checksums].size, passed: faults.empty?,
          light: @facts[:light]&.transform_values { |nits| nits.round(2) })
      end

      def to_json(*) = JSON.pretty_generate(to_h.merge(checksums: @facts[:checksums]))

      # @return [String] a page that needs nothing else
      def to_html
        rows = {"Written" => @facts[:name], "From" => @facts[:from], "To" => @facts[:statement], "Frames" => "#{@facts[:found]} of #{@facts[:expected]}", "Light levels" => @facts[:light] && format("MaxCLL %<cll>.1f, MaxFALL %<fall>.1f cd/m²", @facts[:light])}.compact
        <<~HTML
          <!doctype html><html lang="en"><meta charset="utf-8"><title>#{safe(@facts[:name])}</title>
          <style>body{font:14px/1.5 sans-serif;max-width:60rem;margin:2rem auto;color:#222}th{text-align:left;padding-right:2rem;vertical-align:top}td{word-break:break-all}code{font-size:12px}</style>
          <h1>#{safe(faults.empty? ? "Nothing is wrong with what was written" : "#{faults.size} faults in what was written")}</h1>
          <table>#{rows.map { |name, value| "<tr><th>#{safe(name)}</th><td>#{safe(value)}</td></tr>" }.join}</table>
          #{list("Faults", faults)}#{list("To be looked at", notices)}
          <h2>Checksums, MD5</h2><table>#{@facts[:checksums].map { |sum| "<tr><td><code>#{sum[:md5]}</code></td><td>#{safe(File.basename(sum[:path]))}</td></tr>" }.join}</table></html>
        HTML
      end

      private

      SINGLY = 3 # places of a shot that are told one by one
      SEEN = 0.01 # percent of a picture, below which no number is told

      # Runs of frames that stand still; of a shot that is held again and again one line.
      def still
        @facts[:still].group_by { |first, _| @place.call(first).first }.flat_map do |_, runs|
          held = runs.map { |first, count| "#{stretch(first, count)} the same as the frame before" }
          next held if runs.size <= SINGLY

          "#{@place.call(runs.first.first).join(" ")} and #{runs.size - 1} more places of the shot, #{runs.sum(&:last)} frames in all: the same as the frame before"
        end
      end

      # Runs of frames whose pixels lie beyond the codes, with the most of them.
      def beyond
        @facts.fetch(:beyond, []).sort.chunk_while { |(a, _), (b, _)| b == a + 1 && @place.call(a).first == @place.call(b).first }.map do |run|
          worst = run.map(&:last).max * 100
          "#{stretch(run.first.first, run.size)} #{(worst < SEEN) ? "less than #{SEEN}" : format("up to %.2f", worst)} % of the pixels beyond range or gamut"
        end
      end

      def stretch(first, count)
        shot, timecode = @place.call(first)
        "#{shot} #{timecode}#{", #{count} frames" if count > 1}:"
      end

      def list(title, words) = words.empty? ? "" : "<h2>#{safe(title)}</h2><ul>#{words.map { |word| "<li>#{safe(word)}</li>" }.join}</ul>"

      def safe(value) = CGI.escapeHTML(value.to_s)
    end
  end
end
