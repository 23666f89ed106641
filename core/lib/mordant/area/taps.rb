# frozen_string_literal: true

module Mordant
  module Area
    # A narrow blur, tap by tap along each axis, the same either way; edges go on as they end. NaN becomes 0, and what lies beyond
    # Boxes::LARGEST is held to it.
    class Taps
      REACH = 3.0 # standard deviations

      # @param sigma [Float] standard deviation in pixels, above 0
      # @return [Taps] samples of a Gaussian
      def self.gaussian(sigma) = new((0..(REACH * sigma).floor.clamp(1, nil)).map { |at| Math.exp(-at**2 / (2 * sigma**2)) })

      # @param taps [Array<Float>] of the middle and of pixels ever farther from it; they are made to sum to 1
      # @param apart [Integer] pixels from one to the next
      def initialize(taps, apart: 1)
        @apart = apart
        whole = taps[0] + 2 * taps.drop(1).sum
        @taps = taps.map { |tap| tap / whole }.freeze
        @sum = sum
        freeze
      end

      # @return [Integer] pixels around one that it depends on
      def margin = (@taps.size - 1) * @apart

      # @param plane [Numo::SFloat] [n] of the window; never written to
      # @param window [Grade::Window]
      # @return [Numo::SFloat] [n]
      def call(plane, window)
        down = along(Pointwise.shaped(held(plane), window.height, window.width))
        along(down.transpose.dup).transpose.dup.reshape!(window.size)
      end

      private

      def held(plane)
        return plane if !plane.sum.nan? && plane.max <= Boxes::LARGEST && plane.min >= -Boxes::LARGEST

        sound = plane.clip(-Boxes::LARGEST, Boxes::LARGEST)
        sound[plane.isnan] = 0.0
        sound
      end

      # Down columns.
      def along(rows)
        height, width = rows.shape
        padded = Numo::SFloat.new(height + 2 * margin, width).allocate
        padded[margin...(margin + height), true] = rows
        padded[0...margin, true] = rows[0..0, true]
        padded[(margin + height).., true] = rows[(height - 1)..(height - 1), true]
        @sum.parts(padded.reshape!(padded.size), (0..(2 * margin)).step(@apart).map { |row| row * width }, rows.size).first.reshape!(height, width)
      end

      # Of planes that lie as far apart as the taps.
      def sum
        Pointwise::Sweep.new(2 * @taps.size - 1) do |*planes|
          middle = @taps.size - 1
          [(1..middle).reduce(planes[middle] * @taps[0]) { |sum, at| sum + (planes[middle - at] + planes[middle + at]) * @taps[at] }]
        end
      end
    end
  end
end
