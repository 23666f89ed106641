# frozen_string_literal: true

module Mordant
  module Rendition
    # What was measured of a shot's HDR picture: levels of frames, evenly spaced, and what holds for all of it. Immutable.
    class Statistics
      KEYS = %w[frames every course active reach].freeze
      SLOW = 2.0 # seconds: no faster do levels change that are followed
      MOST = 500_000 # rows

      # @return [Integer] frames of the shot
      attr_reader :frames
      # @return [Integer] frames from one row to the next
      attr_reader :every
      # @return [Array<Array<Float>>] least, mean and greatest of a frame, cd/m2
      attr_reader :course
      attr_reader :active, :reach

      # @param document [Hash]
      # @raise [ParameterError]
      def self.read(document, path: "statistics")
        Checks.held(path, document, KEYS)
        frames, every = %w[frames every].map { |key| document[key].then { |value| (value.is_a?(Integer) && value.between?(1, MOST)) ? value : Checks.reject("#{path}.#{key}", "a number of frames", value) } }
        rows = Checks.list(document["course"], "#{path}.course", MOST, "rows")
        Checks.reject("#{path}.course", "#{(frames / every.to_f).ceil} rows, one for each #{every} frames", rows.size) unless rows.size == (frames / every.to_f).ceil
        course = rows.each_with_index.map { |row, index| row(row, "#{path}.course[#{index}]") }
        new(frames:, every:, course:, active: active(document["active"], "#{path}.active"), reach: reach(document["reach"], "#{path}.reach"))
      end

      class << self
        private

        def row(row, path)
          Checks.reject(path, "least, mean and greatest level", row) unless row.is_a?(Array) && row.size == 3
          row.map { |value| Checks.number(value, path, ToneCurve::LIGHT) }.tap { |levels| Checks.reject(path, "levels that rise", row) unless levels == levels.sort }
        end

        def active(value, path)
          return if value.nil?

          Checks.reject(path, "left, top, width and height as shares", value) unless value.is_a?(Array) && value.size == 4
          value.map { |share| Checks.number(share, path, 0.0..1.0) }
        end

        def reach(value, path)
          Checks.reject(path, "three numbers for #{Gauge::GAMUTS.join(" and ")}", value) unless value.is_a?(Hash) && value.keys.sort == Gauge::GAMUTS.sort && value.values.all? { |row| row.is_a?(Array) && row.size == 3 }
          value.transform_values { |row| row.map { |one| Checks.number(one, path, 0.0..100.0) } }
        end
      end

      def initialize(frames:, every:, course:, active:, reach:)
        @frames, @every, @course, @active, @reach = frames, every, course.freeze, active, reach
        freeze
      end

      # @return [Levels] of all of it: the least of the least, the mean of the means, the greatest of the greatest
      def levels
        least, mean, greatest = course.transpose
        Levels.new(least: least.min, mean: mean.sum / mean.size, greatest: greatest.max, reach:, active:)
      end

      # Levels that follow slow changes: the least and the greatest within SLOW on either side, drawn out by a mean of as many frames, so that they are
      # never within those of the frame itself, and never change faster.
      #
      # @param frame [Integer] of the shot
      # @param rate [Rational] frames a second
      # @return [Levels]
      def levels_at(frame, rate)
        wide = [(SLOW * rate / every).round, 1].max
        at = (frame / every).clamp(0, course.size - 1)
        least, _, greatest = [:min, nil, :max].zip(course.transpose).map { |most, values| most && slow(codes(values), at, wide, most) }
        whole = levels
        Levels.new(least: [nits(least), whole.least].max, mean: whole.mean, greatest: [nits(greatest), whole.greatest].min, reach:, active:)
      end

      # @param frames [Integer]
      # @return [Statistics] of a shot of so many frames, all of which have the levels of the whole
      def standing(frames) = Statistics.new(frames:, every: frames, course: [[levels.least, levels.mean, levels.greatest]], active:, reach:)

      def to_h = {"frames" => frames, "every" => every, "course" => course, "active" => active, "reach" => reach}

      private

      def slow(codes, at, wide, most)
        near = ((at - wide)..(at + wide)).map { |place| place.clamp(0, codes.size - 1) }
        near.sum { |place| codes[([place - wide, 0].max)..(place + wide)].public_send(most) } / near.size
      end

      def codes(values) = Colour::Transfer::PQ.encode(Numo::DFloat[*values] * ICtCp::NITS).to_a

      def nits(code) = Colour::Transfer::PQ.decode(Numo::DFloat[code])[0] / ICtCp::NITS
    end
  end
end
