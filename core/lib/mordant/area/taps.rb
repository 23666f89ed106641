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
        down = down(Pointwise.shaped(held(plane), window.height, window.width))
        across(down).reshape!(window.size).tap { down.free }
      end

      private

      def held(plane)
        return plane if SOUND.worth?(plane.size) ? SOUND.run(plane.size, [plane], []) : Taps.unsound(plane).none?

        sound = plane.clip(-Boxes::LARGEST, Boxes::LARGEST)
        sound[plane.isnan] = 0.0
        sound
      end

      # Down columns, with rows before the first and after the last.
      def down(rows)
        height, width = rows.shape
        padded = Numo::SFloat.new(height + 2 * margin, width).allocate
        padded[margin...(margin + height), true] = rows
        padded[0...margin, true] = rows[0..0, true]
        padded[(margin + height).., true] = rows[(height - 1)..(height - 1), true]
        made = Numo::SFloat.new(height, width).allocate
        summed(padded, width, made.view.reshape!(rows.size))
        made
      end

      # Along rows, with columns before the first and after the last: what is summed from the end of one row to the start of the next is
      # left out.
      def across(rows)
        height, width = rows.shape
        padded = Numo::SFloat.new(height, width + 2 * margin).allocate
        padded[true, margin...(margin + width)] = rows
        padded[true, 0...margin] = rows[true, 0..0]
        padded[true, (margin + width)..] = rows[true, (width - 1)..(width - 1)]
        made = Numo::SFloat.new(height, width + 2 * margin).allocate
        summed(padded, 1, made.view.reshape!(made.size)[0...(made.size - 2 * margin)])
        made[true, 0...width].dup.tap { made.free }
      end

      # @param step [Integer] numbers from one that lies beside another to that one
      # @param into [Numo::SFloat]
      def summed(padded, step, into)
        @sum.parts(padded.view.reshape!(padded.size), (0..(2 * margin)).step(@apart).map { |at| at * step }, into)
        padded.free
      end

      # Of planes that lie as far apart as the taps.
      def sum
        Pointwise::Sweep.new(2 * @taps.size - 1) do |*planes|
          middle = @taps.size - 1
          [(1..middle).reduce(planes[middle] * @taps[0]) { |sum, at| sum + (planes[middle - at] + planes[middle + at]) * @taps[at] }]
        end
      end

      class << self
        # @param plane [Numo::SFloat, Pointwise::Recorded]
        # @return [Numo::Bit, Pointwise::Recorded] where it is NaN or beyond what is held to
        def unsound(plane) = (plane.is_a?(Pointwise::Recorded) ? plane.none : plane.isnan) | (plane > Boxes::LARGEST) | (plane < -Boxes::LARGEST)
      end

      SOUND = Pointwise::Kernel.new([:floats]) { |plane| [unsound(plane)] }
      private_constant :SOUND
    end
  end
end
