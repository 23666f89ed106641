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

      # @param taps [Array<Float>] of the middle and of pixels ever farther from it, two at least; they are made to sum to 1
      # @param apart [Integer] pixels from one to the next
      def initialize(taps, apart: 1)
        @apart = apart
        whole = taps[0] + 2 * taps.drop(1).sum
        @taps = taps.map { |tap| tap / whole }.freeze
        freeze
      end

      # @return [Integer] pixels around one that it depends on
      def margin = (@taps.size - 1) * @apart

      # @param plane [Numo::SFloat] [n] of the window; never written to
      # @param window [Grade::Window]
      # @return [Numo::SFloat] [n]
      def call(plane, window)
        rows = Pointwise.shaped(plane, window.height, window.width)
        made = Tapped.worth?(*rows.shape) ? Tapped.call(rows, @taps, @apart) : [0, 1].reduce(sound(rows)) { |held, axis| along(held, axis) }
        made.reshape!(window.size)
      end

      private

      def sound(rows) = rows.clip(-Boxes::LARGEST, Boxes::LARGEST).tap { |held| held[rows.isnan] = 0.0 }

      # @param axis [Integer] 0: down columns, 1: along rows
      def along(rows, axis)
        beside = ->(off) { Array.new(rows.shape[axis]) { |at| (at + off).clamp(0, rows.shape[axis] - 1) }.then { |places| axis.zero? ? rows[places, true] : rows[true, places] } }
        (1...@taps.size).reduce(rows * @taps[0]) { |sum, at| sum + (beside[-at * @apart] + beside[at * @apart]) * @taps[at] }
      end
    end
  end
end
