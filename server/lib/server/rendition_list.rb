# frozen_string_literal: true

module Server
  # The shots of a cut as the Renditions room lists them: what is measured, what is corrected, what is out of date.
  class RenditionList
    POINTS = 60 # of a course

    # @param cut [Cut]
    def initialize(cut)
      @cut, @renditions = cut, cut.renditions
    end

    # @return [Hash]
    def to_h
      {hdr: @cut.project.hdr&.to_h, targets: @renditions.targets.map(&:to_h), shots: @renditions.shots.map { |shot| line(shot) },
       listed: Mordant::Rendition::Aim::LISTED, lift: Mordant::Rendition::ForTarget::LIFT}
    end

    # @param shot [Shot]
    # @return [Hash]
    def line(shot)
      measured = shot.statistic&.measured
      {shot: shot.id, state: state(shot), copied: shot.statistic&.copied_from, corrections: shot.corrections&.to_h, corrected: corrected(shot), **(measured ? told(measured) : {})}
    end

    # @return [String] "none", "stale" where its picture has changed since, or "measured"
    def state(shot)
      return "none" unless shot.statistic

      (shot.statistic.digest == Statistic.digest(shot)) ? "measured" : "stale"
    end

    private

    # What corrections it has: "all", and ids of targets.
    def corrected(shot) = @renditions.corrections(shot).entries.select(&:acts?).map(&:id)

    def told(measured)
      levels = measured.levels
      step = (measured.course.size / POINTS.to_f).ceil
      {least: levels.least, mean: levels.mean.round(4), greatest: levels.greatest, active: levels.active, every: measured.every * step,
       course: measured.course.each_slice(step).map { |some| some.transpose.then { |least, mean, greatest| [least.min, (mean.sum / mean.size).round(4), greatest.max] } }}
    end
  end
end
