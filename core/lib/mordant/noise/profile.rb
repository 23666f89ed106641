# frozen_string_literal: true

module Mordant
  module Noise
    # How much noise there is: variance of each plane at each detail size, over the level of luma. Immutable.
    class Profile
      LEVELS = 10
      BLOCK = 8 # pixels, of the finest detail
      # Quantile of the mean squares of the blocks of a level that noise alone is taken to have, and what that is of
      # their mean: of luma, which has detail of its own, and of colour.
      QUIET = [[0.2, 0.84], [0.4, 0.95], [0.4, 0.95]].freeze
      # How much coarser detail of noise has at most of finer detail's variance within a frame, of luma and of colour, which is
      # often coarser; white noise has 0.051 and 0.2.
      FALL = [[nil, 0.12, 0.25, 0.3], [nil, 0.35, 0.4, 0.4], [nil, 0.35, 0.4, 0.4]].freeze
      LEAST = 1e-12

      # @return [Array<Float>] luma of each level, rising
      attr_reader :levels
      # @return [Array<Array<Array<Float>>>] variances by plane, detail size and level
      attr_reader :variances

      # Of a picture, from where it has least detail.
      #
      # @param planes [Array<Numo::SFloat>] as Noise.turned
      # @param window [Grade::Window] of all of them
      # @return [Profile]
      def self.estimate(planes, window)
        luma = Array.new(Details::SCALES) { |scale| blocks(planes[0], window, scale) }
        levels = quiet(luma[0], luma[0], 0.5).map(&:first)
        made = planes.each_with_index.map do |plane, index|
          quantile, bias = QUIET[index]
          scales = energies(plane, window).each_with_index.map { |all, scale| spread(quiet(luma[scale], all, quantile), levels).map { |value| [value / bias, LEAST].max } }
          falling(scales, FALL[index])
        end
        new(levels, made)
      end

      # Of several pictures of a shot, over the levels of all of them.
      #
      # @param profiles [Array<Profile>]
      # @return [Profile]
      def self.mean(profiles)
        low, high = profiles.flat_map(&:levels).minmax
        levels = (0...LEVELS).map { |at| low + (high - low) * at / (LEVELS - 1) }
        new(levels, (0...PLANES.size).map { |plane| (0...Details::SCALES).map { |scale| levels.map { |level| profiles.sum { |one| one.at(plane, scale, level) } / profiles.size } } })
      end

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

      # @return [Array<Array<Float>>] by detail size, of blocks
      def self.energies(plane, window) = Details.of(plane, window).first.each_with_index.map { |detail, scale| blocks(detail * detail, window, scale) }

      def self.falling(scales, most)
        scales.zip(most).inject([]) { |made, (values, fall)| [*made, fall ? values.zip(made.last).map { |value, finer| [value, finer * fall].min } : values] }
      end

      # Means of square blocks, larger ones of coarser detail.
      def self.blocks(plane, window, scale)
        edge = BLOCK << scale
        edge = [edge, window.width, window.height].min
        high, wide = window.height / edge, window.width / edge
        plane.reshape(window.height, window.width)[0...(high * edge), 0...(wide * edge)].dup.reshape(high, edge, wide, edge).mean(axis: 3).mean(axis: 1).reshape(high * wide).to_a
      end

      # A quantile of the blocks of each level, which hold as many each.
      def self.quiet(luma, energies, quantile)
        pairs = luma.zip(energies).sort_by(&:first)
        pairs.each_slice([(pairs.size / LEVELS.to_f).ceil, 1].max).map do |some|
          sorted = some.map(&:last).sort
          [some.sum(&:first) / some.size, sorted[((sorted.size - 1) * quantile).round]]
        end
      end

      # At other levels, straight between.
      def self.spread(found, levels)
        levels.map do |level|
          above = found.index { |at, _| at >= level } || (found.size - 1)
          (low, a), (high, b) = found[[above - 1, 0].max], found[above]
          (high > low) ? a + (b - a) * ((level - low) / (high - low)).clamp(0.0, 1.0) : b
        end
      end
      private_class_method :energies, :falling, :blocks, :quiet, :spread

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
          Details.of(plane, window).first.each_with_index.map do |detail, scale|
            factor = [(detail * detail).mean, LEAST].max / at(index, scale, level)
            variances[index][scale].map { |value| [value * factor, LEAST].max }
          end
        end
        Profile.new(levels, made)
      end

      # @return [Array<Array<Float>>] plane, detail size, level and logarithm of the variance to the base of 10
      def rows = variances.each_index.flat_map { |plane| variances[plane].each_index.flat_map { |scale| levels.zip(variances[plane][scale]).map { |level, value| [plane.to_f, scale.to_f, level.round(5), Math.log10(value).clamp(-13.0, 0.0).round(4)] } } }

      # @return [Float] variance
      def at(plane, scale, level) = Between.new(levels, variances[plane][scale]).between(level)

      # @param plane [Integer]
      # @param scale [Integer, nil] nil: of all detail together
      # @return [#call] luma, a Numo::SFloat, to variances
      def table(plane, scale = nil)
        values = scale ? variances[plane][scale] : levels.each_index.map { |at| variances[plane].sum { |one| one[at] } * WHOLE }
        Between.new(levels, values)
      end
      # Details overlap: what the variance of white noise is of the sum of theirs.
      WHOLE = 1 / (0.7924 + 0.0404 + 0.0074 + 0.0018)

      # Straight between levels, and as at the outermost beyond.
      Between = Struct.new(:levels, :values) do
        def call(luma)
          spots = 64
          low, high = levels.first, [levels.last, levels.first + 1e-6].max
          dense = Numo::SFloat.cast((0..spots).map { |at| between(low + (high - low) * at / spots) })
          dense[Numo::Int32.cast(((luma - low) * (spots / (high - low)) + 0.5).clip(0, spots))]
        end

        def between(level)
          above = levels.index { |at| at >= level } || (levels.size - 1)
          return values[above] if above.zero? || levels[above] == levels[above - 1]

          share = (level - levels[above - 1]) / (levels[above] - levels[above - 1])
          values[above - 1] + (values[above] - values[above - 1]) * share.clamp(0.0, 1.0)
        end
      end
      private_constant :Between
    end
  end
end
