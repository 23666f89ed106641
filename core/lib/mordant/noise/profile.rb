# frozen_string_literal: true

module Mordant
  module Noise
    # How much noise there is: variance of each plane at each detail size, over the level of luma. Immutable.
    class Profile
      LEVELS = 10
      BLOCK = 8 # pixels, of the finest detail
      # Quantile of the mean squares of the blocks of a level that noise alone is taken to have, and what that is of
      # their mean: between frames, where most keep still; within one, of luma, which has detail of its own, and of colour.
      BETWEEN = [0.5, 0.92].freeze
      WITHIN = [[0.2, 0.84], [0.4, 0.95], [0.4, 0.95]].freeze
      # How much coarser detail of noise has at most of finer detail's variance within a frame, of luma and of colour, which is
      # often coarser; white noise has 0.051 and 0.2.
      FALL = [[nil, 0.12, 0.25, 0.3], [nil, 0.35, 0.4, 0.4], [nil, 0.35, 0.4, 0.4]].freeze
      LEAST = 1e-12

      # @return [Array<Float>] luma of each level, rising
      attr_reader :levels
      # @return [Array<Array<Array<Float>>>] variances by plane, detail size and level
      attr_reader :variances

      # Of a picture: from what differs between it and others near it, or where there are none, from where it has least detail.
      #
      # @param planes [Array<Numo::SFloat>] as Noise.turned
      # @param window [Grade::Window] of all of them
      # @param others [Array<Array<Numo::SFloat>>] planes of frames before and after that are no repeats
      # @return [Profile]
      def self.estimate(planes, window, others = [])
        luma = Array.new(Details::SCALES) { |scale| blocks(planes[0], window, scale) }
        levels = quiet(luma[0], luma[0], 0.5).map(&:first)
        made = planes.each_with_index.map do |plane, index|
          quantile, bias = others.empty? ? WITHIN[index] : BETWEEN
          scales = energies(plane, others.map { |other| other[index] }, window).each_with_index.map { |all, scale| spread(quiet(luma[scale], all, quantile), levels).map { |value| [value / bias, LEAST].max } }
          others.empty? ? falling(scales, FALL[index]) : scales
        end
        new(levels, made)
      end

      # @return [Array<Array<Float>>] by detail size, of blocks
      def self.energies(plane, others, window)
        return Details.of(plane, window).first.each_with_index.map { |detail, scale| blocks(detail * detail, window, scale) } if others.empty?

        others.map { |other| Details.of((plane - other) * Math.sqrt(0.5), window).first.each_with_index.map { |detail, scale| blocks(detail * detail, window, scale) } }
          .transpose.map { |made| made.transpose.map(&:min) }
      end

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
