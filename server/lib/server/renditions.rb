# frozen_string_literal: true

module Server
  # How the shots of a cut are brought to smaller targets: by what was measured of them, and by their corrections.
  class Renditions
    NONE = Mordant::Rendition::Corrections.new(Mordant::Rendition::Corrections::NONE)
    private_constant :NONE

    # @param shot [Shot]
    # @param document [Hash] of corrections, checked
    # @raise [Mordant::ParameterError] of corrections for a target before the shot is measured
    def self.wait(shot, document)
      early = document["steps"].find { |step| step["id"] != Mordant::Rendition::ForAll::ID }
      return if early.nil? || shot.statistic

      raise Mordant::ParameterError.new(path: "shot #{shot.name}", expected: "levels that are measured, before it is corrected for a target", found: "none yet")
    end

    # @param cut [Cut]
    def initialize(cut)
      @cut = cut
    end

    # @return [Array<Target>] of the project that are renditions, the smallest first, and of equal ones that of the smallest gamut
    def targets = @targets ||= @cut.project.views.select(&:rendition?).sort_by { |target| [target.view.aim.peak, GAMUTS.index(Mordant::Rendition::Aim.gamut(target.view.encoding, target.view.limit))] }
    GAMUTS = %w[bt709 p3-d65 bt2020].freeze
    private_constant :GAMUTS

    # @param view [Mordant::Grade::View]
    # @param frame [Integer] record frame
    # @param trial [Hash{Integer => Mordant::Grade::Recipe}] see Shot#grade
    # @return [Mordant::Grade::View] as it is there; itself where it is no rendition
    def bound(view, frame, trial = {})
      return view unless view.aim

      view.bound(@cut.timeline.layers(frame).map { |layer| mapping(@cut.shot(layer.shot.key), view.aim, frame - layer.shot.record_in, trial) })
    end

    # A rendition of one shot, for what is the same for all of its frames: a table.
    #
    # @param view [Mordant::Grade::View]
    # @param shot [Shot]
    # @param frame [Integer, nil] from its first one, of a rendition that moves; nil: the middle
    # @return [Mordant::Grade::View] itself where it is no rendition
    # @raise [Mordant::ParameterError] of one that no table can hold
    def alone(view, shot, frame = nil)
      return view unless view.aim

      made = view.bound([mapping(shot, view.aim, frame || shot.length / 2)])
      return made if @cut.project.output(made).pointwise?

      raise Mordant::ParameterError.new(path: "target", expected: "a rendition that a table can hold: without detail given back to highlights, and of a shot without bars", found: "#{shot.name} for #{view}")
    end

    # @param shot [Shot]
    # @param aim [Mordant::Rendition::Aim]
    # @param frame [Integer] from the shot's first one
    # @return [Mordant::Rendition::Mapping]
    def mapping(shot, aim, frame, trial = {})
      made = corrections(shot, trial)
      all = made.all_at(frame)
      Mordant::Rendition::Mapping.new(levels: levels(shot, aim, all, frame), all:, one: made.one_at(aim, peaks, top(aim), frame))
    end

    # @return [Boolean] a shot is mapped in one way from its first frame to its last
    def still?(shot, trial = {})
      made = corrections(shot, trial)
      !made.moving? && made.all_at(0).levels != "following"
    end

    # @param shot [Shot]
    # @return [Mordant::Rendition::Corrections] by the shot's own time
    def corrections(shot, trial = {})
      row = shot.corrections or return NONE
      grade = trial.fetch(row.id) { (@corrections ||= {})[row.id] ||= row.grade }
      shot.timed(row, grade)
    end

    # Corrections of shots, begun where there are none yet, in two statements.
    #
    # @param shots [Array<Shot>]
    # @return [Array<Recipe>] one of each
    def begin(shots)
      missing = shots.reject(&:corrections).map { |shot| {corrects_id: shot.id, name: "Corrections", document: Mordant::Rendition::Corrections::NONE} }
      Recipe.insert_all(missing, unique_by: :corrects_id, record_timestamps: true) if missing.any?
      Recipe.where(corrects_id: shots.map(&:id)).to_a
    end

    # @return [String, nil] another one when the HDR target does other things to graded pictures
    def hdr = @hdr ||= @cut.project.hdr&.then { |target| Pictures::Depends.view(target.view) }

    # @return [Array<Shot>] of the cut with what a list of them needs, in two queries more
    def shots
      @cut.loaded_shots.tap { |all| ActiveRecord::Associations::Preloader.new(records: all, associations: %i[corrections statistic]).call }
    end

    # Levels of one shot stand for others.
    #
    # @param id [Integer] of the shot they are of
    # @param ids [Array<Integer>] of the others
    # @param confirmed [Boolean] somebody knows what that means
    # @raise [Mordant::ParameterError, ProjectSettings::Unconfirmed] and nothing is changed
    def take_levels(id, ids, confirmed:)
      known = shots.index_by(&:id)
      from, *others = [id, *ids].map { |one| known[one] || raise(Mordant::ParameterError.new(path: "shots", expected: "shots of the cut", found: one)) }
      raise Mordant::ParameterError.new(path: "from", expected: "a shot whose levels are measured", found: from.name) unless from.statistic
      unless confirmed
        raise ProjectSettings::Unconfirmed, "The levels of #{from.name} would stand for #{others.map(&:name).join(", ")}, whose own pictures may be darker or brighter, so that highlights are lost or stay dull. " \
                                            "They are right only where these are the same picture; measuring is safer."
      end

      levels = from.statistic.measured
      Statistic.keep(others.uniq.map { |shot| [shot, levels.standing(shot.length), Statistic.digest(shot), from.name] })
    end

    private

    def levels(shot, aim, all, frame)
      measured = shot.statistic&.measured or return Mordant::Rendition::Levels.nominal(aim.of)

      (all.levels == "following") ? measured.levels_at(frame, @cut.project.rate) : measured.levels
    end

    def peaks = @peaks ||= targets.to_h { |target| [target.id, target.view.aim.peak] }

    # @return [Float] cd/m2 of the HDR picture
    def top(aim) = Mordant::Rendition::Levels.nominal(aim.of).greatest
  end
end
