# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # What lies about the picture of another shape, above and below or at the sides, and is the same all along.
      module Bars
        FLAT = 0.06 # of white, that rows and columns of bars may differ within, noise included
        LEAST = 3 # parts, of which the picture takes one at least

        module_function

        # @param values [Numo::SFloat] [count, Thumbs::SIZE], 0..1, small pictures one after another
        # @return [Numo::SFloat] of the same shape, of what lies between the bars
        def without(values)
          pictures = values.reshape(values.shape[0], Thumbs::HEIGHT, Thumbs::WIDTH, 3)
          rows, columns = inside(pictures, [0, 2, 3]), inside(pictures, [0, 1, 3])
          return values if rows.size == Thumbs::HEIGHT && columns.size == Thumbs::WIDTH

          pictures[true, over(rows, Thumbs::HEIGHT), over(columns, Thumbs::WIDTH), true].reshape(*values.shape)
        end

        # @param across [Array<Integer>] axes that are not the one that is looked along
        # @return [Range<Integer>] places of the picture; those that are partly bar are not
        def inside(pictures, across)
          moving = (pictures.max(axis: across) - pictures.min(axis: across)).to_a.map { |range| range > FLAT }
          first, last = moving.index(true), moving.rindex(true)
          return 0...moving.size unless first && last - first >= moving.size / LEAST

          (first.zero? ? first : first + 1)..((last == moving.size - 1) ? last : last - 1)
        end

        # @return [Array<Integer>] so many places, evenly over a range
        def over(range, count) = Array.new(count) { |at| range.first + at * range.size / count }
      end
    end
  end
end
