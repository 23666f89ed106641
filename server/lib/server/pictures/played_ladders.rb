# frozen_string_literal: true

module Server
  module Pictures
    # Ladders for playing frames of a cut from their sources as decoded, or from what is left of them once their noise is taken
    # away, where that is kept: one for frames whose grade is the same, with lattices for what occurs in them.
    class PlayedLadders
      # @return [Hash{String => String}] what the screen does not hold yet, by digests
      attr_reader :parts

      # @param desk [Desk]
      # @param wish [Wish] of no frame
      # @param held [Array<String>, nil] digests of what a screen holds
      # @param reduction [Integer] of the sources that are climbed from
      # @raise [Mordant::ParameterError]
      def initialize(desk, wish, held, reduction)
        @desk, @wish, @held, @reduction, @parts = desk, wish, held || [], reduction, {}
        return if @held.is_a?(Array) && @held.size <= Ladders::MOST_HELD

        raise Mordant::ParameterError.new(path: "held", expected: "at most #{Ladders::MOST_HELD} digests", found: @held)
      end

      # @param frames [Range<Integer>] record frames
      # @return [Array<Hash>] frame, rungs, and start, the digest of what is kept of it, if it is drawn from that; rungs are nil
      #   where there is no ladder, as in dissolves; of the first of them, AT_ONCE or where none of their pictures have to be looked at all that have the same
      def of(frames)
        first = played(frames.first)
        return ladders([first], frames.to_a) if stands?(first, frames)

        played = frames.first(AT_ONCE).map { |frame| played(frame) }
        played.chunk_while { |a, b| a.same?(b) }.flat_map { |run| ladders(run, run.map(&:frame)) }
      end

      AT_ONCE = 16 # frames whose pictures are looked at

      # A frame of a shot with its grade there, and what is kept of it without noise.
      Played = Struct.new(:frame, :shot, :source_frame, :recipe, :noise, :start, :screen, keyword_init: true) do
        # @return [Boolean] one ladder does for both
        def same?(other) = shot == other.shot && recipe&.stamp == other.recipe&.stamp && start.nil? == other.start.nil? && screen&.stamp == other.screen&.stamp
      end

      # @param frames [Range<Integer>]
      # @return [Array<Array(Hash, String)>] of those that are kept without their noise: what a screen is told, and words
      def self.starts(desk, wish, frames, reduction)
        frames.filter_map do |frame|
          found, other = desk.kept_noise(wish.with(frame:))
          next if found.nil? || other

          picture = desk.cleaned.fetch(wish.project, *found).reduce(reduction)
          sent = Mordant::Grade::Ladder::Sent.of(picture, wish.project.space)
          [{frame:, shot: found.first.shot.id, width: picture.width, height: picture.height, start: desk.cleaned.digest(wish.project, *found), range: sent.range}, sent.words]
        end
      end

      private

      def played(frame)
        layer, other = @wish.cut.timeline.layers(frame)
        return Played.new(frame:) if other

        shot, there = @wish.cut.shot(layer.shot.key), @wish.with(frame:)
        noise, = @desk.kept_noise(there)
        start = @desk.cleaned.digest(project, *noise) if noise && @desk.cleaned.include?(project, *noise)
        Played.new(frame:, shot:, source_frame: layer.source_frame, recipe: there.recipe_of(shot), noise:, start:, screen: there.screen)
      end

      # One ladder of one rung does for all of them, in whose shot none is mixed with another or moves.
      def stands?(first, frames)
        return false unless first.shot && first.recipe.strands.all? { |group| Mordant::Grade::Ladder.plain?(group) }

        shot = first.shot
        own = (shot.record_in + shot.dissolve)...(shot.record_in + shot.length)
        at = frames.begin - shot.record_in
        own.cover?(frames) && still?(@wish.recipe_of(shot), at...(at + frames.size)) && (@wish.screen.view.aim.nil? || @wish.cut.renditions.still?(shot, @wish.trial || {}))
      end

      def still?(recipe, frames) = !recipe.moving? || recipe.stretches(frames).then { |all| all.one? && !all.first.last }

      # @param run [Array<Played>] of the same grade, of which pictures are looked at
      # @param frames [Array<Integer>] that the ladder is for
      def ladders(run, frames)
        first = run.first
        groups = groups_of(first) or return frames.map { |frame| {frame:, rungs: nil} }

        sees = first.recipe.entries.any? { |entry| entry.masked? && entry.matte.sees_picture? }
        seen = sees ? run : [first, run[run.size / 2], run.last].uniq
        seen = [] if first.start.nil? && groups.all? { |group| Mordant::Grade::Ladder.plain?(group) }
        ladder = ladder(first, groups, seen)
        return frames.map { |frame| {frame:, rungs: Ladders.rungs(ladder, @held, @parts)} } if seen.empty?

        run.map { |one| {frame: one.frame, rungs: Ladders.rungs(ladder, @held, @parts) { |entry| weights(one, ladder, entry, seen) }, **(one.start ? {start: one.start} : {})} }
      end

      # What is climbed from the source, or from what is kept of it; nil where there is no ladder.
      def groups_of(one)
        return if one.shot.nil? || !one.screen.drawable? || (one.noise && one.start.nil?) || Mordant::Colour.encoding(one.shot.clip.code_encoding).linear?

        recipe = one.start ? one.noise.last.after : one.recipe
        recipe.strands if Mordant::Grade::Ladder::Start.of(recipe, nil, source: one.start ? space.log : one.shot.clip.code_encoding, space:)
      end

      def ladder(first, groups, seen)
        small = Desk::SMALL_REDUCTION / @reduction
        smalls = seen.map { |one| picture(one).reduce(small) }
        source, domain, origins = first.start ? [space.log, around(smalls), seen.map { |one| @desk.origin(project, one.noise.first, Desk::SMALL_REDUCTION) }] : [first.shot.clip.code_encoding, Mordant::Lut::Lattice::WHOLE, []]
        Mordant::Grade::Ladder.new(groups:, source:, screen: first.screen, domain:, smalls:, origins:, raster:, space:, compress: first.start.nil? && project.compress_gamut)
      end

      # What occurs in pictures, and as much more as single pixels may lie beyond their means.
      def around(smalls)
        more = Mordant::Grade::Ladder::BEYOND.map { |share| share * (space.white - space.black) }
        ends = smalls.map { |small| [small.rgb.min(axis: 1).to_a, small.rgb.max(axis: 1).to_a] }.transpose
        ends.zip(%i[min max], more).map { |all, most, off| all.transpose.map { |values| values.send(most) + off } }
      end

      # As it is drawn from.
      def picture(one) = one.start ? @desk.cleaned.fetch(project, *one.noise).reduce(@reduction) : codes(one)

      def project = @wish.project

      def space = project.space

      def size = Desk.raster(project).map { |edge| edge / @reduction }

      def raster = Mordant::Grade::Window.whole(*size)

      def codes(one) = @desk.playing(@wish.cut, one.shot, one.source_frame, @reduction)

      # Exact where they are of the place alone; else of the small picture.
      def weights(one, ladder, entry, seen)
        return placed(one, entry) unless entry.matte.sees_picture?

        climb = ladder.climbs[seen.index(one)]
        weigh(["seen", *stamp(one), one.recipe.stamp, entry.id], climb.graded.width, climb.graded.height) { climb.weights.fetch(entry) }
      end

      def stamp(one) = [Depends.frames(one.shot.clip, *Desk.raster(project)), one.shot.clip.code_encoding, one.source_frame, *one.start]

      def placed(one, entry)
        weigh(["placed", entry.matte.to_h, entry.matte.stamps, *size], *size) { Ladders.placed(entry, *size, space) }
      end

      def weigh(key, width, height)
        name = Depends.digest(Mordant::ENGINE, space.id, project.compress_gamut, *key)[0, 16]
        @parts[name] ||= Mordant::Grade::Ladder::Sent.weights(yield) unless @held.include?(name)
        {name:, width:, height:}
      end
    end
  end
end
