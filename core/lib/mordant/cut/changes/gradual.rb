# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # Changes that take time. In a dissolve of n frames, frame k (from 0) is (k + 1) / (n + 1) of the new shot: pictures lie on
      # a straight line between the one before and the one after, at equal distances. In a fade one of
      # both ends is of one colour.
      class Gradual
        LENGTHS = [4, 6, 9, 13, 18, 24, 32, 42, 54, 70, 90].freeze
        LEAST_LENGTH = 3 # frames
        LEAST = 0.045 # distance of the two ends
        OFF = 0.3 # of it, that pictures may be beside the line in the mean
        STEP = 0.5 # of it, in one frame
        INSIDE = [0.2, 0.35, 0.5, 0.65, 0.8].freeze # places on the line that are looked at
        EVEN = 0.05 # that shares may be beside their places, in the mean
        SURE = 0.04 # of which much may happen around it as well
        ALIKE = 0.85 # correlation of ends that are one shot in another light
        PLAIN = 0.02 # deviation of a picture of one colour
        TRIED = 8 # lines about the same place that are looked at closely
        LONGER = 0.0005 # beside the line, that a line may be more for each frame it is longer
        STEADY = 0.4 # of an equal step, that each frame takes
        MOSTLY = 0.8 # of the frames
        BUSIER = 1.35 # times the mean step of both sides
        BESIDE = 9 # frames of a side
        BESIDE_LINE = 0.05 # of the distance, that pictures may then be beside it
        EVERY = 3 # frames between lines that are tried first
        REACH = 14 # frames beyond its ends that shares are looked at in

        Found = Struct.new(:start, :length, :off, keyword_init: true) do
          def over = start + length
        end

        # @param pictures [Pictures]
        def initialize(pictures)
          @pictures = pictures
        end

        # @param cuts [Array<Integer>] hard ones: none lies within
        # @return [Array<Change>]
        def changes(cuts)
          @cuts = cuts
          left = candidates.sort_by { |one| [-(one.length * (OFF - one.off)), one.start] }
          kept = []
          while (one = left.first)
            near = left.select { |other| overlap(one, other) * 2 >= other.length }
            found = (near.first(TRIED) | near.min_by(TRIED, &:off)).filter_map { |other| settled(other) }.min_by { |other| other.off - other.length * LONGER }
            kept << found if found && kept.none? { |other| overlap(found, other).positive? }
            left = left.reject { |other| found ? other.equal?(one) || overlap(found, other).positive? : like?(one, other) }
          end
          faded(kept.sort_by(&:start))
        end

        private

        def like?(a, b) = (a.start - b.start).abs <= 3 && (a.over - b.over).abs <= 3

        def overlap(a, b) = [[a.over, b.over].min - [a.start, b.start].max, 0].max

        def candidates
          (2...(@pictures.count - 2)).step(2).flat_map { |middle| LENGTHS.filter_map { |length| line(middle - length / 2, length) } }
        end

        # @return [Found, nil] where pictures lie on a line
        def line(start, length)
          a, b = start - 1, start + length
          return if a.negative? || b >= @pictures.count || @cuts.any? { |cut| cut > a && cut <= b }

          whole = @pictures.apart(a, b)
          return if whole < LEAST || (start..b).any? { |frame| @pictures.steps[frame] > STEP * whole }

          off = INSIDE.sum do |share|
            frame = a + (share * (length + 1)).round
            part = (frame - a) / (length + 1.0)
            (@pictures[frame] - (@pictures[a] * (1 - part) + @pictures[b] * part)).abs.mean
          end / INSIDE.size / whole
          Found.new(start:, length:, off:) if off < OFF
        end

        # Where it begins and how long it is, by the shares of the new shot in the frames about it.
        #
        # @return [Found, nil]
        def settled(one)
          from, upto = reach(one.start - 1, -1), reach(one.over, 1)
          a, b = [one.start - 3, from].max, [one.over + 2, upto].min
          shares = shares(from..upto, a, b) or return
          fit, off = fitted(one, shares, from, upto)
          ends = [fit[0] - 1, fit[0] + fit[1]].map { |frame| frame.clamp(0, @pictures.count - 1) }
          same = @pictures.spread(ends[0]) > PLAIN && @pictures.spread(ends[1]) > PLAIN && @pictures.alike(*ends) > ALIKE
          found = Found.new(start: fit[0], length: fit[1], off:)
          found if off <= EVEN && !same && fit[1] >= LEAST_LENGTH && steady?(found) && (off <= SURE || plainly?(found))
        end

        # Every frame is a step on the way; what is animated stands still between its poses.
        def steady?(found)
          least = STEADY * @pictures.apart(found.start - 1, found.over) / (found.length + 1)
          (found.start..found.over).count { |frame| @pictures.steps[frame] >= least } >= MOSTLY * (found.length + 1)
        end

        # More happens in it than around it, and all of the picture is on the line.
        def plainly?(found)
          return false if (line(found.start, found.length)&.off || 1) > BESIDE_LINE

          sides = [(found.start - BESIDE)..(found.start - 1), (found.over + 1)..(found.over + BESIDE)].map { |side| side.select { |at| at.between?(1, @pictures.count - 1) && !@cuts.include?(at) } }
          mean = ->(frames) { frames.empty? ? 0.0 : frames.sum { |at| @pictures.steps[at] } / frames.size }
          mean[(found.start..found.over).to_a] > BUSIER * sides.sum(&mean) / 2
        end

        # How far from an end its shot, or its one colour, goes on.
        def reach(frame, way)
          (1..REACH).each do |step|
            at, after = frame + way * (step - 1), frame + way * step
            later = [at, after].max
            return at if !after.between?(0, @pictures.count - 1) || @cuts.include?(later) || plain?(at) != plain?(after) || (plain?(at) && @pictures.steps[later] > PLAIN)
          end
          frame + way * REACH
        end

        def plain?(frame) = frame.between?(0, @pictures.count - 1) && @pictures.spread(frame) < PLAIN

        # The line that is nearest: first among some, then about the best of those.
        #
        # @return [Array(Array(Integer, Integer), Float)] start and length, and how far shares are beside it
        def fitted(one, shares, from, upto)
          best = lambda do |starts, overs|
            tried = starts.flat_map { |start| overs.map { |over| [start, over - start] } }.select { |start, length| length.positive? && start > from && start + length <= upto }
            tried = [[one.start, one.length]] if tried.empty?
            offs = beside(shares, from, tried)
            [tried[offs.min_index], offs.min]
          end
          (start, length), = best[((one.start - REACH)..(one.start + one.length / 2 + 4)).step(EVERY), ((one.over - one.length / 2 - 4)..(one.over + REACH)).step(EVERY)]
          best[((start - EVERY + 1)..(start + EVERY - 1)), ((start + length - EVERY + 1)..(start + length + EVERY - 1))]
        end

        # @return [Numo::DFloat, nil] how much of the way from picture a to picture b
        def shares(frames, a, b)
          way = @pictures[b] - @pictures[a]
          size = (way * way).sum
          Numo::DFloat.cast(frames.map { |frame| ((@pictures[frame] - @pictures[a]) * way).sum / size }) if size.positive?
        end

        # Mean distance of shares from each of some lines. Its ends are found anew, by least squares, as those that were
        # taken may have been within it.
        #
        # @param lines [Array<Array<Integer>>] start and length
        # @return [Numo::DFloat] of each
        def beside(shares, from, lines)
          starts, lengths = lines.transpose.map { |row| Numo::DFloat.cast(row).reshape(lines.size, 1) }
          places = Numo::DFloat.new(1, shares.size).seq + from
          ideal = ((places - starts + 1) / (lengths + 1)).clip(0.0, 1.0)
          over = ideal - ideal.mean(axis: 1).reshape(lines.size, 1)
          other = (shares - shares.mean).reshape(1, shares.size)
          slope = (over * other).sum(axis: 1) / (over * over).sum(axis: 1).clip(1e-9, nil)
          off = (other - over * slope.reshape(lines.size, 1)).abs.mean(axis: 1) / slope.clip(1e-6, nil)
          off[(slope <= 0).where] = Float::MAX if (slope <= 0).any?
          off
        end

        # Of those that meet in a picture of one colour, one fade; others are dissolves.
        def faded(found)
          found.chunk_while { |a, b| (a.over..[b.start - 1, a.over].max).all? { |frame| plain?(frame) } }.map do |run|
            first, last = run.first, run.last
            kind = (plain?(first.over) || plain?(first.start - 1) || run.size > 1) ? "fade" : "dissolve"
            Change.new(frame: first.start, kind:, length: last.over - first.start) unless kind == "fade" && flash?(first, last)
          end.compact
        end

        # One colour for a moment, after which it is the same shot; or nothing on one side of it.
        def flash?(first, last)
          before, after = (first.start - 1).downto(0).find { |frame| !plain?(frame) }, (last.over...@pictures.count).find { |frame| !plain?(frame) }
          before.nil? || after.nil? || @pictures.alike(before, after) > ALIKE
        end
      end
    end
  end
end
