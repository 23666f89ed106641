# frozen_string_literal: true

module Mordant
  module Cut
    # A new version of a cut beside the present one: which of its shots are which, by the frames of the clips that they
    # show. What is bound to frames stays with its source frames.
    class Recut
      # kind: see KINDS; before, after: Timeline::Shot or nil; from: the shot whose grade a new one takes, or nil;
      # head, tail: frames taken off either end, below 0 given.
      Difference = Struct.new(:kind, :before, :after, :from, :head, :tail, :moved, :retimed, :transition, keyword_init: true)
      KINDS = %w[kept moved trimmed new gone].freeze
      BLOCK = 240 # frames

      # @return [Array<Difference>] in the order of the new version, gone ones where they were
      attr_reader :differences
      # @return [Array<Timeline::Shot>] the new version; shots that go on keep their keys
      attr_reader :shots

      # @param present [Array<Timeline::Shot>]
      # @param wanted [Array<Timeline::Shot>] with keys of their own
      # @param attic [Array<Timeline::Shot>] that were in the cut once
      # @param black [Object] the clip that is no picture
      def initialize(present, wanted, attic: [], black: nil)
        @present, @wanted, @attic, @black = present, wanted, attic, black
        @places = present.each_with_index.to_h { |shot, place| [shot.key, place] }
        @pairs, @grades = pairs
        @stay = in_order(@wanted.filter_map { |shot| @places[@pairs[shot.key]&.key] }).to_set
        @shots = Edit.healed(wanted.map { |shot| taken(shot) }).shots
        @differences = listed
        freeze
      end

      private

      # Those that share the most frames first; then, of what is left, those in the attic.
      #
      # @return [Array<Hash>] wanted key to the shot that it is, and to the one it has its grade of
      def pairs
        found, grades, used = {}, {}, {}
        [@present, @attic].each do |shots|
          shared(shots).each do |_, shot, other|
            grades[shot.key] ||= other
            next if found.key?(shot.key) || used.key?(other.key)

            found[shot.key] = other
            used[other.key] = true
          end
        end
        [found, grades]
      end

      def shared(shots)
        near = Hash.new { |known, block| known[block] = [] }
        shots.each_with_index { |shot, place| blocks(shot) { |block| near[block] << [shot, place] } }
        @wanted.each_with_index.flat_map do |shot, at|
          next [] if shot.clip == @black

          blocks(shot).flat_map { |block| near.fetch(block, []) }.uniq(&:last).filter_map do |other, place|
            frames = overlap(range(shot), range(other))
            [[-frames, (at - place).abs, place], shot, other] if frames.positive?
          end
        end.sort_by(&:first)
      end

      # Stretches of a clip that a shot touches: only shots of the same ones can share frames.
      def blocks(shot, &) = ((range(shot).begin / BLOCK)..(range(shot).end / BLOCK)).map { |at| [shot.clip, at] }.each(&)

      def range(shot) = Range.new(*[shot.source_in, shot.source_at(shot.record_in + shot.length - 1)].minmax)

      def overlap(a, b) = [[a.end, b.end].min - [a.begin, b.begin].max + 1, 0].max

      # The wanted shot as it goes on from the one that it is, or whose grade it takes; a transition that stays goes as it went.
      def taken(shot)
        other = @pairs[shot.key] || @grades[shot.key]
        return shot unless other

        same = shot.dissolve.positive? && [other.dissolve, other.wipe] == [shot.dissolve, shot.wipe]
        shot.with(key: @pairs[shot.key]&.key || shot.key, clock: other.clock + away(other, shot.source_in), manner: same ? other.manner : shot.manner)
      end

      # @return [Integer] record frames from a shot's first one to where it shows a source frame
      def away(shot, source) = shot.speed.zero? ? 0 : ((source - shot.source_in) / shot.speed).round

      # The longest run of places that grow: those did not move.
      #
      # @param places [Array<Integer>]
      # @return [Array<Integer>]
      def in_order(places)
        tails, before = [], {}
        places.each do |place|
          at = tails.bsearch_index { |tail| tail >= place } || tails.size
          before[place] = at.zero? ? nil : tails[at - 1]
          tails[at] = place
        end
        run, place = [], tails.last
        while place
          run << place
          place = before[place]
        end
        run
      end

      def listed
        there = @pairs.values.to_set(&:key)
        gone = @present.each_with_index.reject { |shot, _| shot.clip == @black || there.include?(shot.key) }.map { |shot, place| [place, Difference.new(kind: "gone", before: shot)] }
        last = -1
        @wanted.zip(@shots).flat_map do |wanted, shot|
          next [] if shot.clip == @black

          place = @places[@pairs[wanted.key]&.key]
          passed, gone = (place && @stay.include?(place)) ? gone.partition { |at, _| at > last && at < place } : [[], gone]
          last = place if place && @stay.include?(place)
          [*passed.map(&:last), difference(wanted, shot, place)]
        end + gone.map(&:last)
      end

      def difference(wanted, shot, place)
        before = @pairs[wanted.key]
        return Difference.new(kind: "new", after: shot, from: @grades[wanted.key]) unless place

        head, tail = away(before, shot.source_in), 0
        tail = before.length - head - shot.length if before.speed == shot.speed
        moved = !@stay.include?(place)
        changed = [head, tail] != [0, 0] || before.speed != shot.speed || before.length != shot.length
        transition = [before.dissolve, before.wipe] != [shot.dissolve, shot.wipe]
        kind = if changed || transition
          "trimmed"
        else
          (moved ? "moved" : "kept")
        end
        Difference.new(kind:, before:, after: shot, head:, tail:, moved:, retimed: before.speed != shot.speed, transition:)
      end
    end
  end
end
