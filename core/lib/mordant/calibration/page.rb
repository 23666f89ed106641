# frozen_string_literal: true

require "cgi"

module Mordant
  module Calibration
    # A report to read and to keep: a page that needs nothing else.
    class Page
      WIDE, HIGH = 720, 160 # pixels of a chart
      LINES = {"de2000_mean" => ["Mean dE2000", "%.2f"], "de2000_max" => ["Greatest dE2000", "%.2f"], "dl_mean" => ["Mean dL along the greys", "%.2f"], "dl_max" => ["Greatest dL", "%.2f"],
               "white_duv" => ["White off by, u'v'", "%.4f"], "gamut" => ["Of the target's gamut", "%.3f"], "peak" => ["White, cd/m²", "%.1f"], "readings" => ["Patches read", "%d"]}.freeze

      # @param report [Hash] Report#to_h, of JSON
      # @param title [String]
      # @param date [String]
      def initialize(report, title:, date:)
        @report, @title, @date = report, title, date
      end

      # @return [String]
      def to_html
        <<~HTML
          <!doctype html><html lang="en"><meta charset="utf-8"><title>#{safe(@title)}</title>
          <style>body{font:14px/1.5 sans-serif;max-width:48rem;margin:2rem auto;color:#222}th{text-align:left;padding-right:2rem;font-weight:500}td{padding-right:2rem;text-align:right}i{display:inline-block;width:1em;height:1em;vertical-align:middle}svg{display:block}</style>
          <h1>#{safe(@title)}</h1><p>#{safe(@date)}. #{safe(facts.join(" "))}</p>
          <table><tr><th></th>#{sides.map { |name, _| "<td>#{name}</td>" }.join}</tr>#{LINES.map { |key, (label, form)| row(label, sides.map { |_, side| side.fetch(key)&.then { |value| format(form, value) } }) }.join}</table>
          #{"<ul>#{@report["notes"].map { |note| "<li>#{safe(note)}</li>" }.join}</ul>" if @report["notes"].any?}
          <h2>dE2000 of each patch</h2>#{sides.map { |name, side| chart(name, side.fetch("patches")) }.join}
          <h2>Patches</h2><table><tr><th>Patch</th>#{sides.map { |name, _| "<td>#{name}: X, Y, Z</td><td>dE</td>" }.join}</tr>#{patches}</table></html>
        HTML
      end

      private

      def sides = @sides ||= {"before" => @report["before"], "after" => @report["after"]}.compact

      def facts
        reach = @report["reach"]
        settling = @report["settling"]
        [format("Target %s, white %.4f, %.4f.", Target.kind(@report["settings"]["target"]).label, *@report["white"]), format("The screen settles in %.2f s.", settling["seconds"]),
          (format("It shows %.1f %% of the target's gamut; black %.3f cd/m².", reach["gamut"] * 100, reach["black"]) if reach)].compact
      end

      def row(label, values) = "<tr><th>#{safe(label)}</th>#{values.map { |value| "<td>#{value}</td>" }.join}</tr>"

      def chart(name, rows)
        most = sides.values.flat_map { |side| side["patches"].map { |one| one["de"] } }.max.clamp(1.0, nil)
        step = WIDE / rows.size.to_f
        bars = rows.each_with_index.map { |one, at| format('<rect x="%.1f" y="%.1f" width="%.1f" height="%.1f" fill="%s" stroke="#888" stroke-width=".5"/>', at * step, HIGH * (1 - one["de"] / most), step * 0.8, HIGH * one["de"] / most, colour(one["codes"])) }
        "<p>#{name}, up to #{format("%.1f", most)}</p><svg width=\"#{WIDE}\" height=\"#{HIGH}\" role=\"img\" aria-label=\"dE2000 #{name}\">#{bars.join}</svg>"
      end

      def patches
        all = sides.transform_values { |side| side["patches"].to_h { |one| [one["codes"], one] } }
        Patches::ALL_JUDGED.map do |codes|
          cells = all.values.map { |side| side[codes] ? format("<td>%s</td><td>%.2f</td>", side[codes]["light"].map { |part| format("%.3f", part) }.join(" "), side[codes]["de"]) : "<td>not read</td><td></td>" }
          "<tr><th><i style=\"background:#{colour(codes)}\"></i> #{codes.map { |code| format("%.2f", code) }.join(" ")}</th>#{cells.join}</tr>"
        end.join
      end

      def colour(codes) = format("#%02x%02x%02x", *codes.map { |code| (code * 255).round })

      def safe(text) = CGI.escapeHTML(text.to_s)
    end
  end
end
