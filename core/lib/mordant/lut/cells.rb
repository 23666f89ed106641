# frozen_string_literal: true

module Mordant
  module Lut
    # The cells of a fine lattice that is laid over a box of 16-bit codes. A cell has the number of the node at its lowest
    # corner; of nodes red counts fastest, then green, then blue.
    class Cells
      LEVEL = 13 # of the picture that ffmpeg takes a lattice as (see Media::Hald), the largest that it reads rightly: LEVEL^2 nodes of an edge
      SIZE = LEVEL**2
      COUNT = SIZE**3
      STRIDES = [1, SIZE, SIZE**2].freeze
      BESIDE = [-1, 0, 1].repeated_permutation(3).map { |steps| steps.zip(STRIDES).sum { |step, stride| step * stride } }.freeze # steps to the cells that touch one, and to itself
      LARGEST = 65_535.0

      # @return [Array<Array<Integer>>] lowest and highest red, green, blue code
      attr_reader :box

      # @param box [Array<Array<Integer>>]
      def initialize(box)
        @box = box
        @spans = box.transpose.map { |low, high| (high - low).fdiv(SIZE - 1) }
      end

      # The cell in which each colour lies; of one outside the box one at its edge, see #inner.
      #
      # @param codes [Numo::UInt16] [3, n]
      # @return [Numo::Int32] [n]
      def of(codes)
        found = nil
        3.times do |channel|
          own = whole(codes[channel, true], channel)
          (own.inplace * STRIDES[channel]).out_of_place! if channel.positive?
          next found = own unless found

          (found.inplace + own).out_of_place!
          own.free
        end
        found
      end

      # @param cells [Numo::Int32]
      # @return [Numo::Int32] those that lie at no edge of the box, and so hold nothing of what lies outside
      def inner(cells)
        inside = axes(cells).map { |along| (along > 0) & (along < SIZE - 2) }
        cells[inside.reduce(:&).where].dup
      end

      # @param lists [Array<Numo::Int32>] of numbers
      # @return [Numo::Int32] each once, in order
      def self.once(lists)
        marks = Numo::Bit.zeros(COUNT)
        lists.each { |numbers| marks[numbers] = 1 unless numbers.empty? }
        Numo::Int32.cast(marks.where)
      end

      # @param cells [Numo::Int32] inner ones
      # @return [Numo::Int32] the nodes at their corners, each once
      def nodes(cells) = Cells.once(CORNERS.map { |corner| cells + corner })

      # @param cells [Numo::Int32]
      # @param share [Array<Float>] of the way through each: red, green, blue
      # @return [Numo::SFloat] [3, n] codes, as shares of the largest
      def colours(cells, share = [0.0] * 3)
        rows = axes(cells).each_with_index.map { |along, channel| (Numo::DFloat.cast(along) + share[channel]) * (@spans[channel] / LARGEST) + box[0][channel] / LARGEST }
        Numo::SFloat.cast(Numo::NArray.vstack(rows))
      end

      # What a tetrahedral lattice makes of a place in a cell.
      #
      # @param share [Array<Float>]
      # @return [Array<Array(Integer, Float)>] steps from the cell's number to nodes, and what each counts
      def self.weights(share)
        order = [0, 1, 2].sort_by { |channel| -share[channel] }
        corners = order.each_with_object([0]) { |channel, steps| steps << steps.last + STRIDES[channel] }
        corners.zip([1.0, *share.values_at(*order), 0.0].each_cons(2).map { |a, b| a - b })
      end

      # @return [Array<Array(Float, Float)>] of each channel, what is taken from a code and what it is multiplied by to lie within the
      #   codes as within the box
      def stretch = box.transpose.map { |low, high| [low, LARGEST / (high - low)] }

      CORNERS = [0, 1].product([0, 1], [0, 1]).map { |steps| steps.zip(STRIDES).sum { |step, stride| step * stride } }.freeze
      private_constant :CORNERS

      private

      # How many cells lie before each code.
      def whole(codes, channel)
        along = Numo::SFloat.cast(codes)
        ((along.inplace - box[0][channel]) * (1 / @spans[channel])).out_of_place!
        least, most = codes.minmax
        along.inplace.clip(0.0, SIZE - 2.0).out_of_place! if least < box[0][channel] || most >= box[1][channel] # seldom, and dear
        Numo::Int32.cast(along).tap { along.free }
      end

      def axes(cells) = [cells % SIZE, cells / SIZE % SIZE, cells / SIZE**2]
    end
  end
end
