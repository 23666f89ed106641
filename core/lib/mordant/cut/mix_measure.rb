# frozen_string_literal: true

module Mordant
  module Cut
    # Measures the mix of a dissolve that is baked into a clip: the new shot's share in each of its frames.
    #
    # Each frame p is taken for (1 - m) a + m b, where a is how the shot before would go on and b how the one after
    # came there. Both are told from up to AROUND frames on either side, in pictures so small that what moves
    # in them hardly shows: as the nearest frame is, and as far as it has gone steadily in them, going on
    # ever less (by FADING each frame). m is the share that leaves least, by weighted least squares in which what does not fit counts
    # less (Huber's weights), and shares never fall: the nearest rising row is taken (pool adjacent violators).
    #
    # Sources: P. J. Huber, Robust estimation of a location parameter, Ann. Math. Stat. 35 (1964);
    # R. E. Barlow et al., Statistical inference under order restrictions (1972), 1.2.
    class MixMeasure
      WIDTH = 32 # pixels of the small pictures
      HEIGHT = 18
      AROUND = 8 # frames on either side
      FADING = 0.85
      ROUNDS = 6
      SMALLEST = 0.01 # codes that both sides have to differ by in the mean, to be told apart
      BEYOND = 2.5 # times what either has changed by itself in the frames beside

      # @param reader [Media::Reader]
      # @param frames [Integer] of the clip
      # @param first [Integer] the first frame that holds anything of the new shot
      # @param count [Integer] frames that are neither the one shot nor the other
      # @raise [ParameterError] of a stretch without frames on both sides, or of sides that look alike
      # @raise [MediaError]
      def self.shares(reader, frames:, first:, count:)
        from, to = [first - AROUND, 0].max, [first + count + AROUND, frames].min
        raise ParameterError.new(path: "first", expected: "a stretch with frames of either shot before and after it", found: "frames #{first + 1} to #{first + count} of #{frames}") unless count.positive? && from < first && to > first + count

        pictures = []
        reader.each(first: from, count: to - from, width: WIDTH * 4, height: HEIGHT * 4) { |codes| pictures << Numo::DFloat.cast(codes.reduce(4).rgb).flatten / 65_535 }
        new(pictures, first - from, count).shares
      end

      # @param pictures [Array<Numo::DFloat>] [n] each, of the frames before, in and after it
      # @param first [Integer] of them that is the first in it
      # @param count [Integer]
      # @raise [ParameterError] of sides that look alike
      def initialize(pictures, first, count)
        @inside = pictures[first, count]
        @before, @after = pictures.first(first), pictures.drop(first + count)
        least = [SMALLEST, *[@before, @after].map { |side| BEYOND * (side.first - side.last).abs.mean }].max
        raise ParameterError.new(path: "shots", expected: "two shots that differ, before and after it, to tell their shares", found: "pictures that are alike") if (@after.first - @before.last).abs.mean < least
      end

      # @return [Array<Float>] 0.0..1.0, one for each frame in it
      def shares
        onward, backward = drift(@before.reverse), drift(@after)
        found = @inside.each_with_index.map do |picture, index|
          outgoing = @before.last + onward * gone(index + 1)
          incoming = @after.first + backward * gone(@inside.size - index)
          share(picture - outgoing, incoming - outgoing)
        end
        MixMeasure.rising(found).map { |value| value.clamp(0.0, 1.0) }
      end

      # The rising row that is nearest to another.
      #
      # @param values [Array<Float>]
      # @return [Array<Float>]
      def self.rising(values)
        values.each_with_object([]) do |value, pools|
          pools << [value, 1]
          while pools.size > 1 && pools[-2][0] > pools[-1][0]
            (last, count), (before, more) = pools.pop, pools.pop
            pools << [(last * count + before * more) / (count + more), count + more]
          end
        end.flat_map { |value, count| [value] * count }
      end

      private

      # What one frame more changes, away from the nearest frame, in the mean.
      #
      # @param pictures [Array<Numo::DFloat>] from the nearest one on
      def drift(pictures)
        return @inside.first * 0 if pictures.size < 3

        (pictures.first - pictures.last) / (pictures.size - 1)
      end

      def gone(frames) = (1 - FADING**frames) / (1 - FADING) * FADING

      # @return [Float] m for which m * whole is nearest to part
      def share(part, whole)
        weights = whole * 0 + 1
        found = 0.0
        ROUNDS.times do
          found = (weights * part * whole).sum / (weights * whole * whole).sum
          rest = (part - whole * found).abs
          scale = [rest.sort[rest.size / 2] * 1.4826, 1e-4].max
          weights = (rest / scale).clip(1.0, nil)**-1
        end
        found
      end
    end
  end
end
