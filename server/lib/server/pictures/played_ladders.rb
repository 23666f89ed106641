# frozen_string_literal: true

module Server
  module Pictures
    # Ladders for playing frames of a cut from their sources as decoded: one for frames whose
    # grade is the same, with lattices for what occurs in them.
    class PlayedLadders
      # @return [Hash{String => String}] what the screen does not hold yet, by digests
      attr_reader :parts

      # @param desk [Desk]
      # @param wish [Wish] of no frame
      # @param held [Array<String>, nil] digests of what a screen holds
      # @raise [Mordant::ParameterError]
      def initialize(desk, wish, held)
        @desk, @wish, @held, @parts = desk, wish, held || [], {}
        return if @held.is_a?(Array) && @held.size <= Ladders::MOST_HELD

        raise Mordant::ParameterError.new(path: "held", expected: "at most #{Ladders::MOST_HELD} digests", found: @held)
      end

      # @param frames [Range<Integer>] record frames
      # @return [Array<Hash>] frame, and rungs; nil where there is no ladder, as in dissolves; of the first of
      #   them, AT_ONCE or where none of their pictures have to be looked at all that have the same
      def of(frames)
        first = Played.of(@wish, frames.first)
        return ladders([first], frames.to_a) if stands?(first, frames)

        played = frames.first(AT_ONCE).map { |frame| Played.of(@wish, frame) }
        played.chunk_while { |a, b| a.same?(b) }.flat_map { |run| ladders(run, run.map(&:frame)) }
      end

      AT_ONCE = 16 # frames whose pictures are looked at

      # A frame of a shot with its grade there.
      Played = Struct.new(:frame, :shot, :source_frame, :recipe, keyword_init: true) do
        def self.of(wish, frame)
          layer, other = wish.cut.timeline.layers(frame)
          return new(frame:) if other

          shot = wish.cut.shot(layer.shot.key)
          new(frame:, shot:, source_frame: layer.source_frame, recipe: wish.with(frame:).recipe_of(shot))
        end

        # @return [Boolean] one ladder does for both
        def same?(other) = shot == other.shot && recipe&.stamp == other.recipe&.stamp
      end

      private

      # One ladder of one rung does for all of them, in whose shot none is mixed with another or moves.
      def stands?(first, frames)
        return false unless first.shot && first.recipe.strands.all? { |group| Mordant::Grade::Ladder.plain?(group) }

        shot = first.shot
        own = (shot.record_in + shot.dissolve)...(shot.record_in + shot.length)
        at = frames.begin - shot.record_in
        own.cover?(frames) && still?(@wish.recipe_of(shot), at...(at + frames.size))
      end

      def still?(recipe, frames) = !recipe.moving? || recipe.stretches(frames).then { |all| all.one? && !all.first.last }

      # @param run [Array<Played>] of the same grade, of which pictures are looked at
      # @param frames [Array<Integer>] that the ladder is for
      def ladders(run, frames)
        shot, recipe = run.first.shot, run.first.recipe
        start = shot && Mordant::Grade::Ladder::Start.of(recipe, nil, source: shot.clip.code_encoding, space:)
        return frames.map { |frame| {frame:, rungs: nil} } if start.nil? || Mordant::Colour.encoding(shot.clip.code_encoding).linear?

        sees = recipe.entries.any? { |entry| entry.masked? && entry.matte.sees_picture? }
        seen = sees ? run : [run.first, run[run.size / 2], run.last].uniq
        seen = [] if recipe.strands.all? { |group| Mordant::Grade::Ladder.plain?(group) }
        ladder = Mordant::Grade::Ladder.new(groups: recipe.strands, source: shot.clip.code_encoding, screen: @wish.screen, domain: Mordant::Lut::Lattice::WHOLE,
          smalls: seen.map { |one| codes(one).reduce(Desk::SMALL_REDUCTION / Desk::PLAY_REDUCTION) }, raster:, space:, compress: project.compress_gamut)
        return frames.map { |frame| {frame:, rungs: Ladders.rungs(ladder, @held, @parts)} } if seen.empty?

        run.map { |one| {frame: one.frame, rungs: Ladders.rungs(ladder, @held, @parts) { |entry| weights(one, ladder, entry, seen) }} }
      end

      def project = @wish.project

      def space = project.space

      def raster = Mordant::Grade::Window.whole(*Desk.raster(project).map { |edge| edge / Desk::PLAY_REDUCTION })

      def codes(one) = @desk.playing(@wish.cut, one.shot, one.source_frame)

      # Exact where they are of the place alone; else of the small picture.
      def weights(one, ladder, entry, seen)
        return placed(one, entry) unless entry.matte.sees_picture?

        climb = ladder.climbs[seen.index(one)]
        weigh(["seen", *stamp(one), one.recipe.stamp, entry.id], climb.graded.width, climb.graded.height) { climb.weights.fetch(entry) }
      end

      def stamp(one) = [Depends.frames(one.shot.clip, *Desk.raster(project)), one.shot.clip.code_encoding, one.source_frame]

      def placed(one, entry)
        raster = [codes(one).width, codes(one).height]
        weigh(["placed", entry.matte.to_h, entry.matte.stamps, *raster], *raster) { Ladders.placed(entry, *raster, space) }
      end

      def weigh(key, width, height)
        name = Depends.digest(Mordant::ENGINE, space.id, project.compress_gamut, *key)[0, 16]
        @parts[name] ||= Mordant::Grade::Ladder::Sent.weights(yield) unless @held.include?(name)
        {name:, width:, height:}
      end
    end
  end
end
