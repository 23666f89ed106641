# frozen_string_literal: true

module Mordant
  module Area
    # A narrow blur, tap by tap along each axis, the same either way; edges go on as they end.
    class Taps
      REACH = 3.0 # standard deviations

      # @param sigma [Float] standard deviation in pixels, above 0
      # @return [Taps] samples of a Gaussian
      def self.gaussian(sigma) = new((0..(REACH * sigma).floor.clamp(1, nil)).map { |at| Math.exp(-at**2 / (2 * sigma**2)) })

      # @param taps [Array<Float>] of the middle and of pixels ever farther from it; they are made to sum to 1
      def initialize(taps)
        whole = taps[0] + 2 * taps.drop(1).sum
        @taps = taps.map { |tap| tap / whole }.freeze
        freeze
      end

      # @return [Integer] pixels around one that it depends on
      def margin = @taps.size - 1

      # @param plane [Numo::SFloat] [n] of the window; never written to
      # @param window [Grade::Window]
      # @return [Numo::SFloat] [n]
      def call(plane, window)
        along(along(plane.reshape(window.height, window.width)).transpose.dup).transpose.dup.reshape(window.size)
      end

      private

      def along(rows)
        height, width = rows.shape
        padded = Numo::SFloat.new(height, width + 2 * margin).allocate
        padded[true, margin...(margin + width)] = rows
        padded[true, 0...margin] = rows[true, 0..0]
        padded[true, (margin + width)..] = rows[true, (width - 1)..]
        out = rows * @taps[0]
        (1..margin).each { |at| out.inplace + (padded[true, (margin - at)...(margin - at + width)] + padded[true, (margin + at)...(margin + at + width)]) * @taps[at] }
        out.out_of_place!
      end
    end
  end
end
