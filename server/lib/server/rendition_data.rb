# frozen_string_literal: true

require "csv"

module Server
  # What was measured and corrected for the renditions of a cut, as a file: see docs/renditions.md.
  class RenditionData
    FORMAT = "mordant renditions"
    VERSION = 1
    MOST = 10_000 # shots

    # @param cut [Cut]
    def initialize(cut)
      @cut, @renditions = cut, cut.renditions
    end

    # @return [Hash]
    def to_h
      project = @cut.project
      {"format" => FORMAT, "version" => VERSION, "cut" => {"project" => project.name, "name" => @cut.name, "rate" => project.rate.to_s, "start" => @cut.start},
       "hdr" => project.hdr&.document, "gauge" => {"left_out" => Mordant::Rendition::Gauge::FEW, "unit" => "cd/m2"}, "targets" => @renditions.targets.map(&:document),
       "shots" => @renditions.shots.map { |shot| line(shot) }, "deliveries" => deliveries}
    end

    COLUMNS = %w[shot record_in length clip state least mean greatest target peak black tone_blacks tone_middle tone_lights contrast ceiling colour kept detail brightness max_cll max_fall].freeze

    # A line for each shot and target; numbers as they are at the shot's first frame, interpolated where a target is not corrected itself.
    #
    # @return [String]
    def to_csv
      CSV.generate do |csv|
        csv << COLUMNS
        light = deliveries.select { |one| one["shot"].nil? }.to_h { |one| [one["target"], one] }
        @renditions.shots.each { |shot| @renditions.targets.each { |target| csv << row(shot, target, light[target.id]) } }
      end
    end

    # Takes in what such a file says of the shots of this cut, as one change of corrections.
    #
    # @param document [Hash]
    # @return [Integer] shots that were told of
    # @raise [Mordant::ParameterError] and nothing is changed
    def read(document)
      Mordant::Checks.held("renditions", document, %w[format version cut hdr gauge targets shots deliveries])
      refuse("format", "\"#{FORMAT}\", version #{VERSION}", [document["format"], document["version"]].join(" ")) unless document["format"] == FORMAT && document["version"] == VERSION
      lines = Mordant::Checks.list(document["shots"], "shots", MOST, "shots").each_with_index.map { |one, at| checked(one, "shots[#{at}]") }
      twice = lines.map { |shot, *| shot }.tally.find { |_, count| count > 1 }
      refuse("shots", "each shot once", twice.first.name) if twice
      Record.transaction do
        Statistic.keep(lines.filter_map { |shot, statistics, digest, copied, _| [shot, statistics, digest, copied] if statistics })
        correct(lines)
      end
      lines.size
    end

    private

    def line(shot)
      statistic = shot.statistic
      {"shot" => shot.name, "record_in" => shot.record_in, "length" => shot.length, "clip" => shot.clip.stem, "source_in" => shot.source_in,
       "statistics" => statistic && {**statistic.measured.to_h, "least" => statistic.measured.levels.least, "mean" => statistic.measured.levels.mean, "greatest" => statistic.measured.levels.greatest, "digest" => statistic.digest, "copied_from" => statistic.copied_from},
       "corrections" => shot.corrections&.document}
    end

    # MaxCLL and MaxFALL of finished outputs that are renditions, as they were measured on what was written.
    def deliveries
      @deliveries ||= Output.joins(:order).where(orders: {cut_id: @cut.id}, status: "done").order(:id).filter_map do |output|
        light, aim = output.report && output.report["light"], output.made_as.view.aim
        {"path" => output.path, "target" => aim&.target, "shot" => output.shot&.name, "max_cll" => light["cll"], "max_fall" => light["fall"]} if light
      end
    end

    def row(shot, target, light)
      aim = target.view.aim
      mapping = @renditions.mapping(shot, aim, 0)
      levels = shot.statistic&.measured&.levels
      one = mapping.one
      [shot.name, shot.record_in, shot.length, shot.clip.stem, shot.statistic ? "measured" : "none", levels&.least, levels&.mean, levels&.greatest, target.name, aim.peak, aim.black,
        *one.tone, one.contrast, one.ceiling, one.colour, one.kept, one.detail, mapping.all.brightness, light && light["max_cll"], light && light["max_fall"]]
    end

    # @return [Array(Shot, Mordant::Rendition::Statistics, String, String, Hash)]
    def checked(line, path)
      Mordant::Checks.held(path, line, %w[shot record_in length clip source_in statistics corrections])
      shot = places[[line["shot"], line["record_in"]]] or refuse(path, "a shot of this cut by its name and record frame", "#{line["shot"]} at #{line["record_in"]}")
      refuse("#{path}.length", "#{shot.length} frames, as shot #{shot.name} has", line["length"]) unless line["length"] == shot.length
      own = line["statistics"]
      Mordant::Checks.reject("#{path}.statistics", "an object", own) unless own.nil? || own.is_a?(Hash)
      statistics = own && Mordant::Rendition::Statistics.read(own.except("least", "mean", "greatest", "digest", "copied_from"), path: "#{path}.statistics")
      refuse("#{path}.statistics.frames", "#{shot.length} frames", statistics.frames) if statistics && statistics.frames != shot.length
      digest = own && Mordant::Checks.text(own["digest"], "#{path}.statistics.digest")
      refuse("#{path}.corrections", "no corrections for a target before levels are measured", shot.name) if statistics.nil? && shot.statistic.nil? && line["corrections"]&.fetch("steps", nil)&.any? { |step| step.is_a?(Hash) && step["id"] != "all" }
      [shot, statistics, digest, own && own["copied_from"], line["corrections"] && Mordant::Rendition::Corrections.new(line["corrections"]).to_h]
    end

    def places = @places ||= @renditions.shots.to_h { |shot| [[shot.name, shot.record_in], shot] }

    def correct(lines)
      told = lines.filter_map { |shot, *, corrections| [shot, corrections || Mordant::Rendition::Corrections::NONE] if corrections || shot.corrections }.to_h
      by_shot = told.transform_keys(&:id)
      wanted = @renditions.begin(told.keys).to_h { |row| [row.id, by_shot.fetch(row.corrects_id)] }
      return if wanted.empty?

      @cut.project.lock!
      states = Recipe.where(id: wanted.keys).order(:id).lock.to_h { |row| [row, {"document" => wanted.fetch(row.id)}] }.reject { |row, state| row.document == state["document"] }
      Change.record(@cut.project, words: "corrections of renditions read from a file", states:) if states.any?
    end

    def refuse(path, expected, found) = raise(Mordant::ParameterError.new(path:, expected:, found:))
  end
end
