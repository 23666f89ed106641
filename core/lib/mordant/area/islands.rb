# frozen_string_literal: true

require "mordant/vips"

module Mordant
  module Area
    # What hangs together in a plane of yes and no, across and down.
    class Islands
      # @param rows [Numo::Bit] [height, width]
      def initialize(rows)
        @height, @width = rows.shape
        @rows = rows
        labels = Vips::Image.new_from_memory(Numo::UInt8.cast(rows).to_binary, @width, @height, 1, :uchar).labelregions.cast(:int).write_to_memory
        @labels = Numo::Int32.from_binary(labels, [@height, @width])
        labels.clear # which are large
      end

      # @param size [Integer] pixels
      # @return [Numo::Bit] [height, width] of islands that are no larger, across and down
      def within(size)
        turned = @labels.transpose.dup
        small = Numo::UInt8.cast([@labels, turned].map { |labels| extents(labels) <= size }.reduce(:&))
        turned.free
        Numo::Bit.cast(small[@labels].dup.reshape(@height, @width)) & @rows
      end

      private

      # How many rows each label is in; what hangs together has no gaps.
      #
      # @return [Numo::Int32] by label
      def extents(labels)
        height, width = labels.shape
        starts = Numo::Bit.ones(height, width)
        starts[true, 1..] = labels[true, 1..].ne(labels[true, 0...-1]) if width > 1
        at = Numo::Int64.cast(starts.where)
        pairs = (Numo::Int64.cast(Pointwise.shaped(labels, labels.size)[at].dup) * height + at / width).sort
        first = Numo::Bit.ones(pairs.size)
        first[1..] = pairs[1..].ne(pairs[0...-1]) if pairs.size > 1
        (pairs[first.where].dup / height).bincount(minlength: @labels.max + 1)
      end
    end
  end
end
