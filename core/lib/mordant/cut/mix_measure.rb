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
    # Nobody says in what the two were mixed: in codes, in light, or before a rendering with a toe and a shoulder. Each
    # is tried, and the one is taken that leaves least over all frames; another than codes has to leave clearly less.
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
      MOST = 500 # frames of it
      BEYOND = 2.5 # times what either has changed by itself in the frames beside
      EASIER = 0.7 # what codes leave counts so much
      # In what a programme may have been mixed: from codes 0..1, planes of any shape.
      MIXED_IN = {
        codes: ->(codes) { codes },
        light: ->(codes) { codes.clip(0.0, 1.0)**2.4 },
        rendered: ->(codes) { (codes.clip(0.0, 1.0) * 0.96 + 0.02).then { |y| Numo::NMath.log(y / (y * -1.0 + 1.0)) } }
      }.freeze

      # @param reader [Media::Reader]
      # @param frames [Integer] of the clip
      # @param first [Integer] the first frame that holds anything of the new shot
      # @param count [Integer] frames that are neither the one shot nor the other
      # @return [Array<Float>] 0.0..1.0, one for each of those
      # @raise [ParameterError] of a stretch without frames on both sides, or of sides that look alike
      # @raise [MediaError]
      def self.shares(reader, frames:, first:, count:)
        raise ParameterError.new(path: "count", expected: "at most #{MOST} frames, to measure their mix", found: count) if count > MOST

        from, to = [first - AROUND, 0].max, [first + count + AROUND, frames].min
        raise ParameterError.new(path: "first", expected: "a stretch with frames of either shot before and after it", found: "frames #{first + 1} to #{first + count} of #{frames}") unless count.positive? && from < first && to > first + count

        pictures = []
        reader.each(first: from, count: to - from, width: WIDTH * FINER, height: HEIGHT * FINER) { |codes| pictures << Numo::SFloat.cast(codes.rgb) / 65_535 }
        tried = MIXED_IN.transform_values { |mixed| new(pictures.map { |picture| small(mixed.call(picture)) }, first - from, count) }
        tried.fetch(:codes).check
        tried.min_by { |name, one| one.left * ((name == :codes) ? EASIER : 1.0) }.last.shares
      end

      FINER = 4 # pixels either way, of which one of a small picture is the mean

      def self.small(planes) = Numo::DFloat.cast(planes).reshape(3, HEIGHT, FINER, WIDTH, FINER).mean(axis: [2, 4]).flatten
      private_class_method :small

      # @param pictures [Array<Numo::DFloat>] [n] each, of the frames before, in and after it
      # @param first [Integer] of them that is the first in it
      # @param count [Integer]
      def initialize(pictures, first, count)
        @inside = pictures[first, count]
        @before, @after = pictures.first(first), pictures.drop(first + count)
      end

      # @raise [ParameterError] of sides that look alike, as far as they do not move by themselves
      def check
        least = [SMALLEST, *[@before, @after].map { |side| BEYOND * (side.first - side.last).abs.mean }].max
        raise ParameterError.new(path: "shots", expected: "two shots that differ, before and after it, to tell their shares", found: "pictures that are alike") if (@after.first - @before.last).abs.mean < least
      end

      # @return [Array<Float>] 0.0..1.0, one for each frame in it
      def shares
        @shares ||= MixMeasure.rising(sides.zip(@inside).map { |(outgoing, incoming), picture| share(picture - outgoing, incoming - outgoing) }).map { |value| value.clamp(0.0, 1.0) }
      end

      # @return [Float] what of the frames no mix explains, as a share of what the two shots differ by
      def left
        rests = sides.each_with_index.map { |(outgoing, incoming), index| middle((@inside[index] - outgoing * (1 - shares[index]) - incoming * shares[index]).abs) }
        rests.sum / sides.sum { |outgoing, incoming| (incoming - outgoing).abs.mean }
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

      # Both shots as they would be in each frame.
      #
      # @return [Array<Array<Numo::DFloat>>] outgoing and incoming
      def sides
        @sides ||= begin
          onward, backward = drift(@before.reverse), drift(@after)
          Array.new(@inside.size) { |index| [@before.last + onward * gone(index + 1), @after.first + backward * gone(@inside.size - index)] }
        end
      end

      # What one frame more changes, away from the nearest frame, in the mean.
      #
      # @param pictures [Array<Numo::DFloat>] from the nearest one on
      def drift(pictures)
        return @inside.first * 0 if pictures.size < 3

        (pictures.first - pictures.last) / (pictures.size - 1)
      end

      def gone(frames) = (1 - FADING**frames) / (1 - FADING) * FADING

      def middle(values) = values.sort[values.size / 2]

      # @return [Float] m for which m * whole is nearest to part
      def share(part, whole)
        weights = whole * 0 + 1
        found = 0.0
        ROUNDS.times do
          found = (weights * part * whole).sum / (weights * whole * whole).sum
          rest = (part - whole * found).abs
          scale = [middle(rest) * 1.4826, 1e-4].max
          weights = (rest / scale).clip(1.0, nil)**-1
        end
        found
      end
    end
  end
end
