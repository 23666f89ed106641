# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # Changes that take time. In a dissolve of n frames, frame k (from 0) is (k + 1) / (n + 1) of the new shot: pictures lie on
      # a straight line between the one before and the one after, at equal distances, or slower at both ends where it is eased. In
      # a fade one of both ends is of one colour.
      #
      # Sources: A. M. Alattar, Detecting and compressing dissolve regions in video sequences, ISCAS 1993 (the variance of a
      # mix sags between its ends); R. A. Fisher, The use of multiple measurements in taxonomic problems, Ann. Eugenics 7 (1936).
      class Gradual
        LEAST_LENGTH = 3 # frames
        EVEN = 0.05 # that shares may be beside their places, in the mean
        ABOUT = 0.15 # so far from one that is tried first, nothing about it is even
        IN_ALL = 0.5 # and in the sum over a dissolve
        SURE = 0.04 # of which much may happen around it as well
        ALIKE = 0.85 # correlation of ends that are one shot in another light
        KEPT = 0.25 # correlation of detail of ends that are one shot, in which light comes or goes
        PLAIN = 0.02 # deviation of a picture of one colour
        LONGER = 0.0005 # beside the line, that a line may be more for each frame it is longer
        AGREED = 2 # frames that two lines may differ by at either end which say the same
        ROUGH = 0.003 # that shares of the best are beside their places
        FLATTER = 0.82 # of the mean variance of both ends
        MIX = 0.98 # correlation with the mix that it should be
        MORE = 1.05 # times that one's variance
        STEADY = 0.5 # of an equal step, that each frame takes
        MOSTLY = 0.8 # of the frames
        BUSIER = 1.35 # times the mean step of both sides
        BESIDE = 9 # frames of a side
        BESIDE_LINE = 0.05 # of the distance, that pictures may then be beside it
        EVERY = 3 # frames between lines that are tried first
        BENT = 0.6 # that shares may be beside a line halfway, four times
        EASED = 1.3 # times as near to an eased way as to an even one, a dissolve has to be for one that is eased
        OWN = 0.0004 # variance that every number has
        REACH = 8 # frames beyond its ends that shares are looked at in; and between both ways of a fade that are of neither

        # @param pictures [Pictures]
        def initialize(pictures)
          @pictures, @rows = pictures, pictures.coarse
        end

        # @param cuts [Array<Integer>] pictures that are the first of a shot: none lies within
        # @return [Array<Change>]
        def changes(cuts)
          @cuts, @lines, @mixes = cuts, Lines.new(@pictures, cuts), {}
          left = @lines.found.sort_by { |one| [-(one.length * (Lines::OFF - one.off)), one.start] }
          kept, tried = [], {}.compare_by_identity
          while (one = left.first)
            near = left.select { |other| overlap(one, other) * 2 >= other.length }
            settled = near.filter_map { |other| tried.fetch(other) { tried[other] = settled(other) } }
            found = best(settled)
            kept << found if found && kept.none? { |other| overlap(found, other).positive? }
            left = left.reject { |other| found ? other.equal?(one) || overlap(found, other).positive? : like?(one, other) }
          end
          faded(kept.sort_by(&:start))
        end

        private

        def like?(a, b) = (a.start - b.start).abs <= 3 && (a.over - b.over).abs <= 3

        def overlap(a, b) = [[a.over, b.over].min - [a.start, b.start].max, 0].max

        # Each line about a place says where the change is by what it takes for its ends: right is what most of them say, and of those that
        # say it the one that is nearest.
        #
        # @param settled [Array<Lines::Found>]
        # @return [Lines::Found, nil]
        def best(settled)
          said = settled.uniq.sort_by { |one| -settled.sum { |other| agree?(one, other) ? other.length**1.5 / (other.off + ROUGH) : 0.0 } }.find { |one| mix?(one) }
          said && settled.select { |one| agree?(said, one) }.sort_by { |one| one.off - one.length * LONGER }.find { |one| mix?(one) }
        end

        def agree?(a, b) = (a.start - b.start).abs <= AGREED && (a.over - b.over).abs <= AGREED

        # Where it begins and how long it is, by the shares of the new shot in the pictures about it.
        #
        # @return [Lines::Found, nil]
        def settled(one)
          before, after = ends(one)
          from, upto = reach(before, -1), reach(after, 1)
          a, b = [@pictures.nearest(one.start - 3), from].max, [@pictures.nearest(one.over + 2), upto].min
          shares = shares(from..upto, a, b) or return
          (start, length), off = fitted(one, shares, from, upto)
          Lines::Found.new(start:, length:, off:) if off <= EVEN && off * length <= IN_ALL && length >= LEAST_LENGTH
        end

        # It is the way from one shot to another, and not what goes on in one.
        def mix?(found) = @mixes.fetch(found) { @mixes[found] = steady?(found) && flatter?(found) && (found.off <= SURE || plainly?(found)) && !same?(*ends(found)) }

        # @return [Array(Integer, Integer)] the pictures before and after it
        def ends(found) = [@pictures.before(found.start) || 0, @pictures.from(found.over) || last]

        def last = @pictures.count - 1

        # One shot in another light, and not on the way from or to one colour.
        def same?(a, b) = [a - 1, a, b, b + 1].none? { |at| plain?(at.clamp(0, last)) } && (@pictures.kept(a, b) > KEPT || @pictures.alike(a, b) > ALIKE)

        # Halfway, a mix of two pictures that have little in common varies less than they do, and any mix as much as it should; what has only
        # moved does not.
        def flatter?(found)
          a, b = ends(found)
          middle = (a + b) / 2
          share = (@pictures.times[middle] - @pictures.times[a]).fdiv(@pictures.times[b] - @pictures.times[a])
          of_both = @pictures.spread(a)**2 * (1 - share) + @pictures.spread(b)**2 * share
          alike, variance = @pictures.mix(a, b, share, middle)
          @pictures.spread(middle)**2 < FLATTER * of_both || (alike > MIX && variance < MORE)
        end

        # Every picture is a step on the way; what is animated stands still between its poses.
        def steady?(found)
          a, b = ends(found)
          least = STEADY * @rows.apart(a, b) / (found.length + 1)
          steps = (a + 1)..b
          steps.count { |at| @rows.steps[at] >= least * ([@pictures.times[at], found.over].min - [@pictures.times[at - 1], found.start - 1].max) } >= MOSTLY * steps.size
        end

        # More happens in it than around it, and all of the picture is on the line.
        def plainly?(found)
          return false if (@lines.line(found.start, found.length)&.off || 1) > BESIDE_LINE

          a, b = ends(found)
          sides = [@pictures.nearest(found.start - 1 - BESIDE)..a, (b + 1)..@pictures.nearest(found.over + BESIDE)]
          pace((a + 1)..b) > BUSIER * sides.sum { |side| pace(side) } / 2
        end

        # @return [Float] how far pictures go in a frame
        def pace(pictures)
          steps = pictures.select { |at| at.between?(1, last) && !@cuts.include?(at) }
          steps.empty? ? 0.0 : steps.sum { |at| @rows.steps[at] } / steps.sum { |at| @pictures.gap(at) }
        end

        # How far from an end its shot, or its one colour, goes on.
        def reach(picture, way)
          at = picture
          loop do
            after = at + way
            later = [at, after].max
            return at if !after.between?(0, last) || (@pictures.times[after] - @pictures.times[picture]).abs > REACH ||
              @cuts.include?(later) || plain?(at) != plain?(after) || (plain?(at) && @rows.steps[later] > PLAIN)

            at = after
          end
        end

        def plain?(at) = @pictures.spread(at) < PLAIN

        # The line that is nearest: first among some, then about the best of those.
        #
        # @return [Array(Array(Integer, Integer), Float)] start and length, and how far shares are beside it
        def fitted(one, shares, from, upto)
          least, most = @pictures.times[from], @pictures.times[upto]
          places = Numo::DFloat.cast(@pictures.times[from..upto])
          best = lambda do |starts, overs|
            tried = starts.flat_map { |start| overs.map { |over| [start, over - start] } }.select { |start, length| length.positive? && start > least && start + length <= most }
            tried = [[one.start, one.length]] if tried.empty?
            offs = beside(shares, places, tried)
            [tried[offs.min_index], offs.min]
          end
          (start, length), off = best[((one.start - REACH)..(one.start + one.length / 2 + 4)).step(EVERY), ((one.over - one.length / 2 - 4)..(one.over + REACH)).step(EVERY)]
          return [[start, length], off] if off > ABOUT

          best[((start - EVERY + 1)..(start + EVERY - 1)), ((start + length - EVERY + 1)..(start + length + EVERY - 1))]
        end

        # What changes in either shot by itself counts less: Fisher's weights.
        #
        # @return [Numo::DFloat, nil] how much of the way from picture a to picture b
        def shares(pictures, a, b)
          way = @rows[b] - @rows[a]
          own = [pictures.begin..a, b..pictures.end].map { |side| own(side) }.sum
          weighted = way / (own + OWN)
          size = (way * weighted).sum
          Numo::DFloat.cast(((@rows.values[pictures, true] - @rows[a]) * weighted).sum(axis: 1) / size) if size.positive?
        end

        # @return [Numo::SFloat] variance of each number while a shot goes on
        def own(side)
          rows = @rows.values[side, true]
          (rows - rows.mean(axis: 0)).then { |rest| (rest * rest).mean(axis: 0) }
        end

        # Mean distance of shares from each of some lines, evenly or eased, whichever is nearer.
        #
        # @param places [Numo::DFloat] frames that the shares are of
        # @param lines [Array<Array<Integer>>] start and length
        # @return [Numo::DFloat] of each
        def beside(shares, places, lines)
          starts, lengths = lines.transpose.map { |row| Numo::DFloat.cast(row).reshape(lines.size, 1) }
          way = ((places.reshape(1, places.size) - starts + 1) / (lengths + 1)).clip(0.0, 1.0)
          even, eased = off(shares, way.concatenate(way * way * (way * -2 + 3))).reshape(2, lines.size).then { |both| [both[0, true], both[1, true]] }
          Numo::DFloat.minimum(even, eased * EASED)
        end

        # Mean distance of shares from ways. The ends of each are found anew, by least squares, as those that were taken may have
        # been within it.
        #
        # @param ways [Numo::DFloat] [n, shares]
        # @return [Numo::DFloat] [n]
        def off(shares, ways)
          line, bend, other = [ways, ways * (ways * -1 + 1), shares.reshape(1, shares.size)].map { |rows| rows - rows.mean(axis: 1).reshape(rows.shape[0], 1) }
          ll, lb, bb, lo, bo = [[line, line], [line, bend], [bend, bend], [line, other], [bend, other]].map { |one, two| (one * two).sum(axis: 1) }
          bent = ((bo * ll - lo * lb) / (lo * bb - bo * lb)).clip(-BENT, BENT)
          bent[bent.isnan.where] = 0.0 if bent.isnan.any?
          over = line + bend * bent.reshape(bent.size, 1)
          slope = (over * other).sum(axis: 1) / (over * over).sum(axis: 1).clip(1e-9, nil)
          off = (other - over * slope.reshape(slope.size, 1)).abs.mean(axis: 1) / slope.clip(1e-6, nil)
          off[(slope <= 0).where] = Float::MAX if (slope <= 0).any?
          off
        end

        # Of those that meet in a picture of one colour, one fade; others are dissolves.
        def faded(found)
          found.chunk_while { |a, b| through_plain?(*[ends(a).last, ends(b).first].minmax) }.map do |run|
            first, last = run.first, run.last
            kind = (plain?(ends(first).last) || plain?(ends(first).first) || run.size > 1) ? "fade" : "dissolve"
            Change.new(frame: first.start, kind:, length: last.over - first.start) unless kind == "fade" && flash?(first, last)
          end.compact
        end

        # Down to a picture of one colour, and up from it, with little between.
        def through_plain?(from, upto)
          most = [from, upto].map { |at| @pictures.spread(at) }.max
          others = (from..upto).reject { |at| plain?(at) }
          others.size.between?(0, [REACH, upto - from].min) && others.all? { |at| @pictures.spread(at) <= most }
        end

        # One colour for a moment, after which it is the same shot; or nothing on one side of it.
        def flash?(first, last)
          before, after = ends(first).first.downto(0).find { |at| !plain?(at) }, (ends(last).last...@pictures.count).find { |at| !plain?(at) }
          before.nil? || after.nil? || @pictures.alike(before, after) > ALIKE
        end
      end
    end
  end
end
