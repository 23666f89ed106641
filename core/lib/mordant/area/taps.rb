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
        rows = Pointwise.shaped(held(plane), window.height, window.width)
        down = along(rows, 0)
        along(down, 1).reshape!(window.size).tap { down.free }
      end

      private

      def held(plane)
        return plane if SOUND.worth?(plane.size) ? SOUND.run(plane.size, [plane], []) : Taps.unsound(plane).none?

        sound = plane.clip(-Boxes::LARGEST, Boxes::LARGEST)
        sound[plane.isnan] = 0.0
        sound
      end

      # Of what has all of its neighbours where it lies, and of the ends.
      #
      # @param rows [Numo::SFloat] [height, width]; never written to
      # @param axis [Integer] 0: down columns, 1: along rows
      # @return [Numo::SFloat] [height, width]
      def along(rows, axis)
        length, step = rows.shape[axis], rows.shape.drop(axis + 1).reduce(1, :*)
        made = Numo::SFloat.new(*rows.shape).allocate
        within = (margin * step)...(rows.size - margin * step)
        summed(rows, step, made.view.reshape!(rows.size)[within]) if length > 2 * margin
        ends(rows, axis, length, step) { |places, part| made[*at(axis, places)] = part }
        made
      end

      # Both ends, one after the other, with those beside them that they go on as; what is summed from one to the other is left out.
      #
      # @yieldparam places [Range]
      # @yieldparam made [Numo::SFloat] what there is
      def ends(rows, axis, length, step)
        count = margin.clamp(..length)
        firsts = [0, length - count]
        places = firsts.flat_map { |first| ((first - margin)...(first + count + margin)).map { |place| place.clamp(0, length - 1) } }
        padded = rows[*at(axis, places)].dup
        made = Numo::SFloat.new(*padded.shape).allocate
        summed(padded, step, made.view.reshape!(made.size)[0...(made.size - 2 * margin * step)])
        firsts.zip([0, count + 2 * margin]) { |first, from| yield(first...(first + count), made[*at(axis, from...(from + count))]) }
      end

      def at(axis, places) = axis.zero? ? [places, true] : [true, places]

      # @param step [Integer] numbers from one that lies beside another to that one
      # @param into [Numo::SFloat]
      def summed(rows, step, into)
        @sum.parts(rows.view.reshape!(rows.size), (0..(2 * margin)).step(@apart).map { |at| at * step }, into)
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
