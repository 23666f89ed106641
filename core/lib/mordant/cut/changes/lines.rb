# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # Stretches whose pictures lie about on a straight line between the one before and the one after.
      class Lines
        LENGTHS = [4, 6, 9, 13, 18, 24, 32, 42, 54, 70, 90].freeze # frames
        EVERY = (2..3) # frames between the middles of those that are tried
        CLOSER = 4 # parts of a short one after which the next is tried
        LEAST = 0.04 # distance of the two ends
        OFF = 0.3 # of it, that pictures may be beside the line in the mean
        STEP = 0.5 # of it, in one frame
        LARGER = 1.3 # times its share of the way, that a step over several frames may be
        INSIDE = [0.2, 0.35, 0.5, 0.65, 0.8].freeze # places on the line that are looked at
        LEAST_INSIDE = 2 # pictures
        AT_ONCE = 256 # stretches looked at together

        # From frame start on, length frames; off: of the distance of the ends, that pictures are beside the line.
        Found = Struct.new(:start, :length, :off, keyword_init: true) do
          def over = start + length
        end

        # @param pictures [Pictures]
        # @param cuts [Array<Integer>] pictures that are the first of a shot: none lies within
        def initialize(pictures, cuts)
          @pictures, @rows = pictures, pictures.coarse
          @cuts_before = [0]
          first = cuts.to_h { |cut| [cut, true] }
          (0...pictures.count).each { |at| @cuts_before << @cuts_before.last + (first[at] ? 1 : 0) }
        end

        # @return [Array<Found>] of every length, all along
        def found
          LENGTHS.flat_map do |length|
            middles = (0..@pictures.times.last).step((length / CLOSER).clamp(EVERY))
            pairs = middles.filter_map { |middle| ends(middle - length / 2, length) }.uniq
            pairs.each_slice(AT_ONCE).flat_map { |some| among(some) }
          end
        end

        # @return [Found, nil]
        def line(start, length) = ends(start, length)&.then { |pair| among([pair]).first }

        private

        # @return [Array(Integer, Integer), nil] pictures on either side
        def ends(start, length)
          a, b = @pictures.before(start), @pictures.from(start + length)
          [a, b] if a && b && b - a > LEAST_INSIDE && @cuts_before[b + 1] == @cuts_before[a + 1]
        end

        # @param pairs [Array<Array(Integer, Integer)>] pictures that are the ends of lines
        # @return [Array<Found>] of those that are
        def among(pairs)
          a, b = pairs.transpose.map { |row| @rows.values[row, true] }
          wholes = (b - a).abs.mean(axis: 1).to_a
          near = pairs.each_index.select { |at| wholes[at] >= LEAST && even?(pairs[at], wholes[at]) }
          return [] if near.empty?
          return among(pairs.values_at(*near)) if near.size < pairs.size

          offs = INSIDE.sum { |share| beside(pairs, a, b, share) } / INSIDE.size
          pairs.each_with_index.filter_map do |(from, upto), at|
            off = offs[at] / wholes[at]
            Found.new(start: @pictures.times[from] + 1, length: @pictures.times[upto] - @pictures.times[from] - 1, off:) if off < OFF
          end
        end

        # No picture takes a large part of the way at once.
        def even?((from, upto), whole)
          way = @pictures.times[upto] - @pictures.times[from]
          ((from + 1)..upto).all? { |at| @rows.steps[at] <= whole * [STEP, LARGER * @pictures.gap(at) / way].max }
        end

        def beside(pairs, a, b, share)
          places = pairs.map do |from, upto|
            first, last = @pictures.times[from], @pictures.times[upto]
            at = @pictures.nearest((first + share * (last - first)).round)
            [at, (@pictures.times[at] - first).fdiv(last - first)]
          end
          inner = @rows.values[places.map(&:first), true]
          parts = Numo::SFloat.cast(places.map(&:last)).reshape(places.size, 1)
          (inner - (a + (b - a) * parts)).abs.mean(axis: 1)
        end
      end
    end
  end
end
