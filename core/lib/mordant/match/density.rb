# frozen_string_literal: true

module Mordant
  module Match
    # How dense Points lie in their space, smoothed by the kernel 1/4, 1/2, 1/4 along each
    # axis, PASSES times.
    class Density
      # Lowest value, width of a bin and bins: stops, red over blue, green over both.
      AXES = [[-9.0, 0.25, 60], [-4.0, 0.1, 80], [-2.0, 0.08, 50]].freeze
      SHAPE = AXES.map(&:last).freeze
      PASSES = 4
      # Density that is taken to be everywhere, so that no single point decides.
      FLOOR = 1e-6
      # Where skin of every depth lies, in stops of red over blue and of green over both.
      SKIN = [0.4..2.4, -0.7..-0.02].freeze
      SKIN_GAIN = 6.0

      # @param points [Points]
      # @param skin [Float] 0..1: how much more things coloured like skin count
      def initialize(points, skin: 0.0)
        counts = Numo::DFloat.cast(Density.bins(points.coordinates).bincount(minlength: SHAPE.reduce(:*))).reshape(*SHAPE)
        counts = favouring_skin(counts, skin) if skin.positive?
        PASSES.times { 3.times { |axis| counts = smoothed(counts, axis) } }
        @shares = (counts / counts.sum).reshape(counts.size)
        @logarithms = Numo::NMath.log(@shares + FLOOR)
      end

      # @param coordinates [Numo::DFloat] [3, n]
      # @param shift [Array<Float>] added to them
      # @return [Numo::Int32] [n]
      def self.bins(coordinates, shift = [0.0, 0.0, 0.0])
        AXES.each_with_index.map do |(low, width, count), axis|
          Numo::Int32.cast(((coordinates[axis, true] + (shift[axis] - low)) * (1 / width)).clip(0, count - 1)).clip(0, count - 1)
        end.each_with_index.reduce(0) { |sum, (bin, axis)| sum * SHAPE[axis] + bin }
      end

      # #likelihood of many shifts at once, by whole bins each way along every axis.
      #
      # @param sample [Numo::DFloat] [3, n]
      # @param reach [Array<Integer>] bins
      # @return [Hash{Array<Integer> => Float}] by bins of each axis
      def likelihoods(sample, reach)
        lightness, warmth, tint = AXES.each_index.map { |axis| shifted_along(axis, sample, reach[axis]) }
        lightness.each_with_object({}) do |(n, across), made|
          warmth.each do |m, along|
            plane = across + along
            tint.each { |k, up| made[[n, m, k]] = @logarithms[plane + up].dup.sum / plane.size }
          end
        end
      end

      # @param sample [Numo::DFloat] [3, n]
      # @return [Float] mean logarithm of the density where the shifted points come to lie
      def likelihood(sample, shift) = @logarithms[Density.bins(sample, shift)].mean

      # @param other [Density]
      # @return [Float] 0..1, the Bhattacharyya coefficient
      def overlap(other) = Numo::NMath.sqrt(shares * other.shares).sum

      protected

      attr_reader :shares

      private

      # What one axis adds to the place in #shares, by bins of the shift.
      def shifted_along(axis, sample, reach)
        low, width, count = AXES[axis]
        bins = Numo::Int32.cast(((sample[axis, true] - low) * (1 / width)).clip(-reach, count - 1 + reach).floor)
        stride = SHAPE.drop(axis + 1).reduce(1, :*)
        (-reach..reach).to_h { |n| [n, (bins + n).clip(0, count - 1) * stride] }
      end

      def smoothed(counts, axis)
        length = counts.shape[axis]
        at = ->(range) { Array.new(3) { |one| (one == axis) ? range : true } }
        made = counts * 0.5
        made[*at[1...length]] += counts[*at[0...(length - 1)]] * 0.25
        made[*at[0...(length - 1)]] += counts[*at[1...length]] * 0.25
        made
      end

      def favouring_skin(counts, skin)
        warm, fresh = SKIN.each_with_index.map do |range, index|
          low, width, count = AXES[index + 1]
          middle = (Numo::DFloat.new(count).seq + 0.5) * width + low
          Numo::DFloat.cast(middle.ge(range.begin) & middle.le(range.end))
        end
        counts * (warm.reshape(1, SHAPE[1], 1) * fresh.reshape(1, 1, SHAPE[2]) * (SKIN_GAIN * skin) + 1.0)
      end
    end
  end
end
