# frozen_string_literal: true

module Mordant
  module Grade
    # A stretch of a shot that steps can be bound to. Immutable.
    #
    # From start to finish, both with it, it is at full strength, but for its fades: each mark has a length before
    # and a length after it over which it fades, so a fade of 15 before the start leaves the mark where "here it is at full
    # strength" is. Of a start at S with B before and A after, it is 0 at S - B and 1 at S + A, and the same
    # the other way round at its finish; between them straight, or by (1 - cos(pi t)) / 2. Frames count from the first one
    # of what owns the recipe.
    class Span
      KEYS = %w[id name start finish fade_in fade_out curve].freeze
      CURVES = %w[cosine straight].freeze
      MOST = 64 # of a recipe
      LONGEST_FADE = 100_000 # frames

      # @return [String]
      attr_reader :id, :name, :curve
      # @return [Integer] frames, the first and the last one
      attr_reader :start, :finish
      # @return [Array(Integer, Integer)] frames before and after the mark
      attr_reader :fade_in, :fade_out

      # @param documents [Object] as parsed from JSON
      # @param path [String] for errors
      # @return [Array<Span>]
      # @raise [ParameterError]
      def self.list(documents, path: "spans") = Checks.named(documents, path, MOST, "spans") { |one, place| new(one, path: place) }

      # @param range [Range<Integer>] see Course#moves
      # @param reach [Range<Integer>] frames
      # @return [Range<Integer>, nil] what of the one lies in the other
      def self.common(range, reach)
        from, to = [range.begin, reach.begin - 1].max, [range.end, reach.end + 1].min
        from..to if from < to
      end

      # @param document [Hash] as parsed from JSON: id, start, finish, and as far as wanted name, fade_in, fade_out, curve
      # @param path [String] for errors
      # @raise [ParameterError]
      def initialize(document, path: "span")
        Checks.held(path, document, KEYS)
        @id = Checks.text(document["id"], "#{path}.id")
        @name = document["name"] ? Checks.text(document["name"], "#{path}.name") : "span"
        @start, @finish = %w[start finish].map { |side| frame(document[side], "#{path}.#{side}") }
        refuse("#{path}.finish", "a frame that is not before the start, #{start}", finish) if finish < start
        @fade_in, @fade_out = %w[fade_in fade_out].map { |side| fade(document.fetch(side, [0, 0]), "#{path}.#{side}") }
        @curve = document.fetch("curve", CURVES.first)
        refuse("#{path}.curve", CURVES.join(", "), curve) unless CURVES.include?(curve)
        freeze
      end

      # @param frame [Integer] from the owner's first one
      # @return [Float] 0.0..1.0; where both fades meet, the weaker
      def at(frame) = [eased(rise(frame)), eased(fall(frame))].min

      # @return [Range<Integer>] frames outside of which it is nothing
      def reach
        first = start - fade_in[0] + (fades?(fade_in) ? 1 : 0)
        last = finish + fade_out[1] - (fades?(fade_out) ? 1 : 0)
        first..last
      end

      # @return [Array<Range<Integer>>] see Course#moves
      def moves
        [fades?(fade_in) ? (start - fade_in[0])..(start + fade_in[1]) : (start - 1)..start,
          fades?(fade_out) ? (finish - fade_out[0])..(finish + fade_out[1]) : finish..(finish + 1)]
      end

      def to_h = {"id" => id, "name" => name, "start" => start, "finish" => finish, "fade_in" => fade_in, "fade_out" => fade_out, "curve" => curve}

      private

      def fades?(fade) = fade.sum.positive?

      def rise(frame)
        return (frame >= start) ? 1.0 : 0.0 unless fades?(fade_in)

        (frame - start + fade_in[0]).fdiv(fade_in.sum).clamp(0.0, 1.0)
      end

      def fall(frame)
        return (frame <= finish) ? 1.0 : 0.0 unless fades?(fade_out)

        (finish + fade_out[1] - frame).fdiv(fade_out.sum).clamp(0.0, 1.0)
      end

      def eased(share) = (curve == "straight") ? share : (1 - Math.cos(Math::PI * share)) / 2

      def frame(value, path)
        return value if value.is_a?(Integer) && value.abs <= Course::FURTHEST

        refuse(path, "a whole number of frames", value)
      end

      def fade(value, path)
        fine = value.is_a?(Array) && value.size == 2 && value.all? { |frames| frames.is_a?(Integer) && frames.between?(0, LONGEST_FADE) }
        fine ? value.dup.freeze : refuse(path, "frames before and after the mark, 0 to #{LONGEST_FADE} each", value)
      end

      def refuse(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))
    end
  end
end
