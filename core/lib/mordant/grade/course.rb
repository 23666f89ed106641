# frozen_string_literal: true

module Mordant
  module Grade
    # How one parameter goes over time: its value at some frames, counted from the first one of what owns
    # it, and how it gets from each to the next. Before the first and after the last it stands still. Immutable.
    #
    # The way on from a key is *hold* (it stays until the next one), *straight*, or *smooth*. A smooth way is
    # a cubic Hermite curve. Its slopes at either end are multiples of the straight way's: 0 comes to rest, 1
    # goes as the straight one there, and up to 3 never goes beyond the two values. A slope that is not given
    # is found from the keys on either side of it, for each number of a row apart: 0 at the first, the last
    # and where the number turns, else a mean that stays within the values.
    #
    # Sources: F. N. Fritsch and R. E. Carlson, Monotone piecewise cubic interpolation, SIAM J. Numer. Anal.
    # 17 (1980), for slopes of 0 to 3; F. N. Fritsch and J. Butland, A method for constructing local monotone
    # piecewise cubic interpolants, SIAM J. Sci. Stat. Comput. 5 (1984), for the mean.
    class Course
      MOST = 200 # keys
      FURTHEST = 10_000_000 # frames; below 0 before what was the first one when the key was made
      EVER = -FURTHEST..FURTHEST
      EASES = %w[hold straight smooth].freeze
      SLOPES = 0.0..3.0
      PARTS = %w[frame value ease in out].freeze

      # arriving, leaving: slopes of a smooth way before and after it, nil: found.
      Key = Struct.new(:frame, :value, :ease, :arriving, :leaving) do
        def to_h = {"frame" => frame, "value" => value, "ease" => ease, "in" => arriving, "out" => leaving}.compact
      end

      # @return [Array<Key>]
      attr_reader :keys

      # @param document [Array<Hash>] keys in order: frame, value, and as far as wanted ease, in and out
      # @param parameter [Declared::Parameter, Declared::TextParameter, Declared::ColourParameter, Declared::PointsParameter, Declared::RowsParameter]
      # @param path [String] for errors
      # @raise [ParameterError]
      def initialize(document, parameter:, path:)
        refuse(path, "1 to #{MOST} keys of a frame and a value", document) unless document.is_a?(Array) && document.size.between?(1, MOST)
        @parameter = parameter
        @keys = document.each_with_index.map { |key, index| key(key, "#{path}[#{index}]") }.freeze
        frames = @keys.map(&:frame)
        refuse(path, "frames one after another", frames) unless frames == frames.uniq.sort
        freeze
      end

      # @param frame [Integer] from the owner's first one
      # @return [Object] value there
      def at(frame)
        after = keys.find_index { |key| key.frame > frame }
        return keys.last.value unless after
        return keys.first.value if after.zero?

        from, to = keys[after - 1, 2]
        share = (frame - from.frame).fdiv(to.frame - from.frame)
        case from.ease
        when "hold" then from.value
        when "straight" then share.zero? ? from.value : @parameter.mix(from.value, to.value, share)
        else share.zero? ? from.value : smooth(after - 1, share)
        end
      end

      # @return [Boolean] its value is a number or a row of them
      def numbers? = @parameter.is_a?(Declared::Parameter)

      # @return [Array<Range<Integer>>] of the owner's frames, in which it moves: the one after a begin is the first
      #   that differs from the one before it, an end the last
      def moves
        keys.each_cons(2).reject { |from, to| from.value == to.value }
          .map { |from, to| ((from.ease == "hold") ? to.frame - 1 : from.frame)..to.frame }
      end

      def to_a = keys.map(&:to_h)

      private

      # @param index [Integer] of the key that it goes on from
      def smooth(index, share)
        from, to = keys[index, 2]
        return @parameter.mix(from.value, to.value, eased(share, from.leaving || 0.0, to.arriving || 0.0)) unless numbers?
        return number(index, share, &:value) unless from.value.is_a?(Array)

        from.value.each_index.map { |part| number(index, share) { |key| key.value[part] } }
      end

      # @yieldparam key [Key]
      # @yieldreturn [Float] the number of it that is meant
      def number(index, share, &value)
        from, to = keys[index, 2]
        low, high = value.call(from), value.call(to)
        low + (high - low) * eased(share, from.leaving || slope(index, index, &value), to.arriving || slope(index + 1, index, &value))
      end

      # Cubic Hermite curve from 0 to 1.
      def eased(t, leaving, arriving) = t * t * (3 - 2 * t) + leaving * t * (1 - t)**2 - arriving * t * t * (1 - t)

      # @param key [Integer] index of the one it is found for
      # @param way [Integer] index of the one that the way goes on from
      # @return [Float] as a multiple of that way's own
      def slope(key, way, &value)
        return 0.0 if key.zero? || key == keys.size - 1

        before, here, after = keys[key - 1, 3]
        return 0.0 if before.ease == "hold" || here.ease == "hold"

        spans = [here.frame - before.frame, after.frame - here.frame]
        rises = [(value.call(here) - value.call(before)) / spans[0], (value.call(after) - value.call(here)) / spans[1]]
        return 0.0 unless (rises[0] * rises[1]).positive?

        weights = [spans[0] + 2 * spans[1], 2 * spans[0] + spans[1]]
        weights.sum / (weights[0] / rises[0] + weights[1] / rises[1]) / rises[way - key + 1]
      end

      def key(document, path)
        refuse(path, "an object with #{PARTS.join(", ")}", document) unless document.is_a?(Hash) && (document.keys - PARTS).empty?
        frame = document["frame"]
        refuse("#{path}.frame", "a whole number of frames", frame) unless frame.is_a?(Integer) && frame.abs <= FURTHEST
        refuse("#{path}.value", "the value there", nil) unless document.key?("value")
        ease = document.fetch("ease", "straight")
        refuse("#{path}.ease", EASES.join(", "), ease) unless EASES.include?(ease)
        slopes = %w[in out].map { |side| document[side] && slope_of(document[side], "#{path}.#{side}") }
        Key.new(frame, @parameter.check(document["value"], "#{path}.value"), ease, *slopes).freeze
      end

      def slope_of(value, path)
        return value.to_f if value.is_a?(Numeric) && value.real? && SLOPES.cover?(value)

        refuse(path, "a slope in #{SLOPES}, as a multiple of the straight way's", value)
      end

      def refuse(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))
    end
  end
end
