# frozen_string_literal: true

module Server
  module Pictures
    # Finds what makes a shot like its hero, by what both pictures show; see
    # Mordant::Match::Proposal.
    #
    # Of a request: "recipe": the hero's steps come along, and the source is made like the
    # hero's source before them; without it the shot's own steps stay, and their result is made
    # like the hero's. "frame" and "hero_frame": record frames, without them the middles.
    # "region" and "hero_region": parts to look at. "skin": 0..1.
    class Matching
      STEP = "Match"

      # @param shot [Shot]
      # @param hero [Shot]
      # @param body [Hash]
      def initialize(shot, hero, body)
        @shot, @hero, @body = shot, hero, body
        @along = body["recipe"] == true
      end

      # @return [Hash] document of the shot's recipe as it would be; parameters, alike before and
      #   after, 0..1
      # @raise [Mordant::ParameterError]
      def to_h
        found = Mordant::Match::Proposal.new(hero: points(@hero, "hero_"), picture: points(@shot, ""), skin: @body.fetch("skin", 0.0))
        before, after = found.overlaps
        {document: document(found.parameters), parameters: found.parameters, before:, after:}
      end

      private

      # Steps of the shot that an earlier match has not made.
      def own = @shot.recipe.document["steps"].reject { |step| step["kind"] == "balance" && step["name"].start_with?("#{STEP} ") }

      def document(parameters)
        step = {"id" => SecureRandom.uuid, "kind" => "balance", "name" => "#{STEP} #{@hero.name}"[0, 80], "parameters" => parameters}
        copied = @hero.recipe.document["steps"].map { |one| one.merge("id" => SecureRandom.uuid) }
        Mordant::Grade::Recipe.new((@along ? @hero : @shot).recipe.document.merge("steps" => @along ? [step, *copied] : [*own, step])).to_h
      end

      def points(shot, prefix)
        wish = Wish.new(cut: shot.cut, frame: frame(shot, "#{prefix}frame"), washes: false)
        feed = Desk.current.incoming(wish)
        codes = @body["#{prefix}region"] ? feed.codes.crop(@body["#{prefix}region"]) : feed.codes
        codes = codes.reduce(Desk::SMALL_REDUCTION) if codes.width > Desk::WIDTH / 2
        working = Desk.current.plan(shot.cut.project, steps(shot), feed.encoding).run(codes)
        Mordant::Match::Points.new(working, space: shot.cut.project.space, name: "#{prefix}frame")
      end

      # What a shot is looked at through.
      def steps(shot)
        return Mordant::Grade::Recipe.new("steps" => []) if @along

        (shot == @shot) ? shot.grade({shot.recipe.id => Mordant::Grade::Recipe.new(@shot.recipe.document.merge("steps" => own))}, washes: false) : shot.grade(washes: false)
      end

      def frame(shot, name)
        given = @body[name]
        return shot.record_in + [shot.dissolve, shot.length / 2].max.clamp(0, shot.length - 1) if given.nil?
        return given if given.is_a?(Integer) && (shot.record_in...(shot.record_in + shot.length)).cover?(given)

        raise Mordant::ParameterError.new(path: name, expected: "a frame of shot #{shot.name}", found: given)
      end
    end
  end
end
