# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # Small pictures one after another, and how far they are from each other.
      class Pictures
        AT_ONCE = 64 # pictures compared together, so that memory stays flat

        # @return [Integer]
        attr_reader :count
        # @return [Array<Float>] how far each is from the one before, 0..1; 0 of the first
        attr_reader :steps

        # @param thumbs [Array<Numo::UInt8>]
        def initialize(thumbs)
          @count = thumbs.size
          @values = Numo::SFloat.cast(Numo::NArray.vstack(thumbs)) / 255
          @luma = @values.reshape(count, Thumbs::HEIGHT * Thumbs::WIDTH, 3).then { |rgb| rgb[true, true, 0] * 0.2126 + rgb[true, true, 1] * 0.7152 + rgb[true, true, 2] * 0.0722 }
          @spreads = (@luma - @luma.mean(axis: 1).reshape(count, 1)).then { |rest| (rest * rest).mean(axis: 1) }.to_a.map { |mean| Math.sqrt(mean) }
          @steps = [0.0, *lagged(1)]
          @apart = {}
        end

        # @return [Numo::SFloat] [SIZE], 0..1
        def [](frame) = @values[frame, true]

        # @return [Float] deviation of luma: what is of one colour has none
        def spread(frame) = @spreads[frame]

        # @return [Float] mean distance of two pictures, 0..1
        def apart(a, b)
          return steps[[a, b].max] if (a - b).abs == 1

          @apart[(a < b) ? [a, b] : [b, a]] ||= (self[a] - self[b]).abs.mean
        end

        # How alike two pictures are whatever their light: 1 the same, 0 nothing in common. The second may
        # have moved, as in a fast pan.
        #
        # @return [Float] the highest correlation of their luma
        def alike(a, b)
          first, second = [a, b].map { |frame| @luma[frame, true].reshape(Thumbs::HEIGHT, Thumbs::WIDTH) }
          moved = SHIFTS.map { |across, down| correlation(*[[first, across, down], [second, -across, -down]].map { |picture, x, y| part(picture, x, y) }) }
          nearer = ZOOMS.flat_map { |by| [[first, second], [second, first]].map { |one, other| correlation(enlarged(one, by).flatten, other.dup.flatten) } }
          (moved + nearer).max
        end

        SHIFTS = [*(-18..18).step(2).map { |across| [across, 0] }, *[-1, 1].map { |across| [across, 0] }, *[-6, -4, -2, -1, 1, 2, 4, 6].map { |down| [0, down] }].freeze

        ZOOMS = [1.08, 1.16, 1.28].freeze

        private

        # The middle of a picture.
        def enlarged(picture, by)
          rows, columns = [Thumbs::HEIGHT, Thumbs::WIDTH].map { |edge| Array.new(edge) { |at| ((at - (edge - 1) / 2.0) / by + (edge - 1) / 2.0).round } }
          picture[rows, columns].dup
        end

        # @return [Array<Float>] of each picture from the one so many before it
        def lagged(lag)
          (lag...count).step(AT_ONCE).flat_map do |from|
            to = [from + AT_ONCE, count].min
            (@values[from...to, true] - @values[(from - lag)...(to - lag), true]).abs.mean(axis: 1).to_a
          end
        end

        def part(picture, across, down)
          rows = (down >= 0) ? down...Thumbs::HEIGHT : 0...(Thumbs::HEIGHT + down)
          columns = (across >= 0) ? across...Thumbs::WIDTH : 0...(Thumbs::WIDTH + across)
          picture[rows, columns].dup.flatten
        end

        def correlation(a, b)
          a -= a.mean
          b -= b.mean
          size = Math.sqrt((a * a).sum * (b * b).sum)
          (size < 1e-6) ? 0.0 : (a * b).sum / size
        end
      end
    end
  end
end
