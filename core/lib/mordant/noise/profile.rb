# frozen_string_literal: true

module Mordant
  module Noise
    # How much noise there is: variance of each plane at each detail size, over the level of luma. Immutable.
    class Profile
      LEAST = 1e-12 # variance

      # @return [Array<Float>] luma of each level, rising
      attr_reader :levels
      # @return [Array<Array<Array<Float>>>] variances by plane, detail size and level
      attr_reader :variances

      # @param rows [Array<Array<Float>>] as #rows
      # @return [Profile]
      def self.of(rows)
        levels = rows.map { |row| row[2] }.uniq.sort
        found = rows.group_by { |plane, size, *| [plane.round, size.round] }
        new(levels, (0...PLANES.size).map { |plane| (0...Details::SCALES).map { |scale| spread(found.fetch([plane, scale]).map { |row| [row[2], 10.0**row[3]] }.sort, levels) } })
      end

      # @param rows [Array<Array<Float>>]
      # @return [Boolean] they say something of each plane and detail size
      def self.whole?(rows) = rows.map { |plane, size, *| [plane, size] }.uniq.sort == (0...PLANES.size).to_a.product((0...Details::SCALES).to_a).map { |pair| pair.map(&:to_f) }

      # At other levels, straight between.
      def self.spread(found, levels)
        levels.map do |level|
          above = found.index { |at, _| at >= level } || (found.size - 1)
          (low, a), (high, b) = found[[above - 1, 0].max], found[above]
          (high > low) ? a + (b - a) * ((level - low) / (high - low)).clamp(0.0, 1.0) : b
        end
      end
      private_class_method :spread

      def initialize(levels, variances)
        @levels, @variances = levels, variances
        freeze
      end

      # As much more or less of it everywhere as a flat patch has.
      #
      # @param planes [Array<Numo::SFloat>] of the patch
      # @param window [Grade::Window] of it
      # @return [Profile]
      def like(planes, window)
        level = planes[0].mean
        made = planes.each_with_index.map do |plane, index|
          found = Estimate.falling(Details.of(plane, window).first.map { |detail| (detail * detail).mean }, index)
          found.each_with_index.map do |variance, scale|
            factor = [variance, LEAST].max / at(index, scale, level)
            variances[index][scale].map { |value| [value * factor, LEAST].max }
          end
        end
        Profile.new(levels, made)
      end

      # @return [Array<Array<Float>>] plane, detail size, level and logarithm of the variance to the base of 10
      def rows = variances.each_index.flat_map { |plane| variances[plane].each_index.flat_map { |scale| levels.zip(variances[plane][scale]).map { |level, value| [plane.to_f, scale.to_f, level.round(5), Math.log10(value).clamp(-13.0, 0.0).round(4)] } } }

      # @return [Float] variance
      def at(plane, scale, level) = between(variances[plane][scale], level)

      # Details overlap: what the variance of white noise is of the sum of theirs.
      WHOLE = 1 / Details::WHITE.sum

      # Where luma stands among as many levels as #values has, straight between the outermost ones and as they are beyond.
      #
      # @param luma [Numo::SFloat]
      # @return [Numo::Int32]
      def spots(luma)
        low, high = ends
        Numo::Int32.cast((((luma - low).inplace * (SPOTS / (high - low))) + 0.5).out_of_place!.clip(0, SPOTS))
      end
      SPOTS = 64

      # @param plane [Integer]
      # @param scale [Integer, nil] nil: of all detail together
      # @return [Numo::SFloat] variances at levels that #spots finds
      def values(plane, scale = nil)
        low, high = ends
        given = scale ? variances[plane][scale] : levels.each_index.map { |at| variances[plane].sum { |one| one[at] } * WHOLE }
        Numo::SFloat.cast((0..SPOTS).map { |at| between(given, low + (high - low) * at / SPOTS) })
      end

      # @param luma [Numo::SFloat] [n]
      # @return [Array<Numo::SFloat>] [n] variances of each plane, of all detail together
      def at_levels(luma)
        found = spots(luma)
        PLANES.each_index.map { |plane| values(plane)[found].dup }
      end

      private

      def ends = [levels.first, [levels.last, levels.first + 1e-6].max]

      # Straight between levels, and as at the outermost beyond.
      def between(values, level)
        above = levels.index { |at| at >= level } || (levels.size - 1)
        return values[above] if above.zero? || levels[above] == levels[above - 1]

        share = (level - levels[above - 1]) / (levels[above] - levels[above - 1])
        values[above - 1] + (values[above] - values[above - 1]) * share.clamp(0.0, 1.0)
      end
    end
  end
end
