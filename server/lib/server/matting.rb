# frozen_string_literal: true

module Server
  # What mattes of a shot's grade refer to beyond it: steps of other shots of the cut, clips that were taken in as
  # mattes, and paths. The world of Mordant::Grade::Links; its places are shots.
  class Matting
    # @param shot [Shot]
    # @param recipe [Mordant::Grade::Recipe] its grade
    # @param trial [Hash{Integer => Mordant::Grade::Recipe}] see Shot#grade
    # @return [Mordant::Grade::Recipe] that has all it refers to
    # @raise [Mordant::ParameterError, Mordant::MediaError] of what is not there, or a circle of links
    def self.resolved(shot, recipe, trial)
      Mordant::Grade::Links.refers?(recipe) ? Mordant::Grade::Links.new(new(shot, recipe, trial)).recipe(shot) : recipe
    end

    def initialize(shot, recipe, trial)
      @recipes, @trial = {shot => recipe}, trial
      @cut = shot.cut
    end

    def recipe(shot) = @recipes[shot] ||= shot.composed(@trial)

    # @param link [Mordant::Matte::Linked]
    # @return [Shot]
    def key(link, from)
      return if link.source

      link.own? ? from : member(link.shot)
    end

    def between(place, from, to) = (from == to) ? place : Pictures::OtherShot.new(place, from, to)

    # @param contributor [Mordant::Matte::Clip]
    def clip(contributor, shot)
      clip = (@clips ||= {})[contributor.clip] ||= @cut.project.clips.ready.find_by(id: Integer(contributor.clip, exception: false))
      raise Mordant::ParameterError.new(path: "matte clip", expected: "a clip that is taken in", found: contributor.clip) unless clip

      clip.association(:project).target = @cut.project
      Pictures::MatteClip.new(clip, shot, channel: contributor.channel, offset: contributor.offset.round)
    end

    # @return [Mordant::Track::Path]
    def path(id, _shot)
      Path.track(id, @cut.id) || raise(Mordant::ParameterError.new(path: "matte.contributors.path", expected: "a path that has been tracked in this cut", found: id))
    end

    def name(shot) = shot.name

    private

    def member(id)
      @cut.member(Integer(id, exception: false)) || raise(Mordant::ParameterError.new(path: "matte", expected: "a shot of the same cut to take the matte from", found: id))
    end
  end
end
