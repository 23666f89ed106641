# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # Small pictures one after another, without flashes, and how alike they are.
      class Pictures
        FLASH = 7 # frames it takes, at most
        BRIGHT = 0.02 # distance to what is before and after it, at least
        RETURN = 0.5 # of that, to what counts as the same again
        SAME = 0.8 # correlation of both
        COARSE = 3 # pixels either way, of which one of the coarse pictures is the mean

        # @return [Rows] of all pixels
        attr_reader :fine
        # @return [Rows] in which what moves hardly shows
        attr_reader :coarse

        # @return [Array<Integer>] the frame that each is
        attr_reader :times

        # @param thumbs [Array<Numo::UInt8>] of all frames or of some
        # @param times [Array<Integer>] the frames that they are, rising from 0
        def initialize(thumbs, times:)
          @times = times
          values = Bars.without(Numo::SFloat.cast(Numo::NArray.vstack(thumbs)) / 255)
          @fine = steadied(Rows.new(values))
          luma = LUMA.call(values)
          @luma = luma - luma.mean(axis: 1).reshape(count, 1)
          @spreads = (@luma * @luma).mean(axis: 1).to_a.map { |mean| Math.sqrt(mean) }
          @coarse = Rows.new(values.reshape(count, Thumbs::HEIGHT / COARSE, COARSE, Thumbs::WIDTH / COARSE, COARSE, 3).mean(axis: [2, 4]).reshape(count, Thumbs::SIZE / COARSE**2))
          @alike, @moved, @detail = {}, {}, {}
        end

        # @return [Integer]
        def count = fine.count

        # @return [Integer, nil] the last picture before a frame
        def before(frame) = (from(frame) || count).pred.then { |at| at unless at.negative? }

        # @return [Integer, nil] the first picture that is a frame or lies after it
        def from(frame) = times.bsearch_index { |time| time >= frame }

        # @return [Integer] the picture that is nearest to a frame
        def nearest(frame) = [before(frame), from(frame)].compact.min_by { |at| (times[at] - frame).abs }

        # @return [Integer] frames from the picture before one
        def gap(at) = times[at] - times[at - 1]

        # @return [Float] deviation of luma: what is of one colour has none
        def spread(frame) = @spreads[frame]

        # How alike two pictures are whatever their light: 1 the same, 0 nothing in common. The second may
        # have moved, as in a fast pan.
        #
        # @return [Float] the highest correlation of their luma
        def alike(a, b) = @alike[[a, b]] ||= [moved(a, b).first, nearer(a, b)].max

        # @return [Array(Float, Array(Integer, Integer))] the highest correlation, and how far the second lies across and down
        def moved(a, b)
          @moved[[a, b]] ||= begin
            first, second = @luma[a, true][SHIFTED.first] * SHIFTED.last, @luma[b, true][SHIFTED[1]] * SHIFTED.last
            alike = correlations(first, second, SHIFTED.last.sum(axis: 1))
            [alike.max, SHIFTS[alike.max_index]]
          end
        end

        # @return [Float] correlation of what stays as it is when light changes: near 0 of two shots, more of one shot whatever its light
        def kept(a, b) = correlation(detail(a), detail(b))

        # @param share [Float] of picture b
        # @return [Array(Float, Float)] correlation of the luma of a picture with a mix of two others, and its variance as a share of that one's
        def mix(a, b, share, picture)
          mixed, own = @luma[a, true] * (1 - share) + @luma[b, true] * share, @luma[picture, true].dup
          [correlation(mixed, own), (own * own).mean / [(mixed * mixed).mean, 1e-9].max]
        end

        SHIFTS = [*(-18..18).step(2).map { |across| [across, 0] }, *[-1, 1].map { |across| [across, 0] }, *[-6, -4, -2, -1, 1, 2, 4, 6].map { |down| [0, down] }].freeze

        # Of each shift, the pixels of the first and the second picture that lie on each other, and 1 where there are both.
        SHIFTED = begin
          at = Numo::Int32.new(1, Thumbs::HEIGHT * Thumbs::WIDTH).seq
          x, y = at % Thumbs::WIDTH, at / Thumbs::WIDTH
          across, down = SHIFTS.transpose.map { |way| Numo::Int32.cast(way).reshape(SHIFTS.size, 1) }
          column, row = x + across, y + down
          inside = (column >= 0) & (column < Thumbs::WIDTH) & (row >= 0) & (row < Thumbs::HEIGHT)
          [column.clip(0, Thumbs::WIDTH - 1) + row.clip(0, Thumbs::HEIGHT - 1) * Thumbs::WIDTH, at + across * 0, Numo::SFloat.cast(inside)]
        end
        private_constant :SHIFTED

        ZOOMS = [1.08, 1.16, 1.28].freeze

        LUMA = ->(values) { values.reshape(values.shape[0], Thumbs::HEIGHT * Thumbs::WIDTH, 3).then { |rgb| rgb[true, true, 0] * 0.2126 + rgb[true, true, 1] * 0.7152 + rgb[true, true, 2] * 0.0722 } }
        private_constant :LUMA

        private

        # Flashes and the dark between those of a strobe give way to what is before and after them.
        def steadied(rows)
          frame, found = 1, false
          while frame < rows.count - 1
            length = flash(rows, frame)
            (1..length).each { |step| rows.values[frame + step - 1, true] = rows[frame - 1] * (1 - step / (length + 1.0)) + rows[frame + length] * (step / (length + 1.0)) } if length
            found ||= length
            frame += length ? length + 1 : 1
          end
          found ? Rows.new(rows.values) : rows
        end

        # @return [Integer, nil] frames of a flash that begins
        def flash(rows, frame)
          step = rows.steps[frame]
          return if step < BRIGHT

          (1..[FLASH, rows.count - 1 - frame].min).find do |length|
            rows.steps[frame + length] >= BRIGHT && rows.apart(frame - 1, frame + length) < RETURN * [step, rows.steps[frame + length]].min &&
              LUMA.call(rows.values[[frame - 1, frame + length], true]).then { |both| correlation(both[0, true].dup, both[1, true].dup) } > SAME
          end
        end

        def luma(frame) = @luma[frame, true].reshape(Thumbs::HEIGHT, Thumbs::WIDTH)

        def detail(frame) = @detail[frame] ||= Detail.of(luma(frame)).flatten

        def nearer(a, b)
          first, second = luma(a), luma(b)
          ZOOMS.flat_map { |by| [[first, second], [second, first]].map { |one, other| correlation(enlarged(one, by).flatten, other.dup.flatten) } }.max
        end

        # The middle of a picture.
        def enlarged(picture, by)
          rows, columns = [Thumbs::HEIGHT, Thumbs::WIDTH].map { |edge| Array.new(edge) { |at| ((at - (edge - 1) / 2.0) / by + (edge - 1) / 2.0).round } }
          picture[rows, columns].dup
        end

        # Of rows of which so many numbers count; the others are 0.
        def correlations(first, second, counts)
          means = [first, second].map { |rows| rows.sum(axis: 1) / counts }
          both, *own = [[first, second], [first, first], [second, second]].map { |a, b| (a * b).sum(axis: 1) }
          sizes = Numo::NMath.sqrt(own.zip(means).map { |sum, mean| (sum - mean * mean * counts).clip(0.0, nil) }.inject(:*))
          (both - means.inject(:*) * counts) / sizes.clip(1e-6, nil)
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
