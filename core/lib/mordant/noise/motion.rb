# frozen_string_literal: true

module Mordant
  module Noise
    # Where the blocks of a frame are in another one: only those are looked for that differ by more than noise does.
    #
    # From where a block is, ever shorter steps are tried in eight directions, down to one pixel; a step counts where it makes the
    # block more alike. Blocks lie on a grid of the whole picture, so that windows agree.
    class Motion
      BLOCK = 16 # pixels
      # Pixels of a block that are compared, across and down, by effort.
      EVERY = {"quick" => 4, "usual" => 2, "thorough" => 1}.freeze
      LIKE = 1.6 # times what noise alone makes of a difference
      WAYS = [-1, 0, 1].product([-1, 0, 1]) - [[0, 0]]

      # @param window [Grade::Window]
      # @param effort [String] of EVERY
      # @param reach [Integer] pixels that anything moves at most
      def initialize(window, effort:, reach:)
        @window, @every, @reach = window, EVERY.fetch(effort), reach
        @rows, @columns = [[window.top, window.height], [window.left, window.width]].map { |from, count| starts(from, count) }
        freeze
      end

      # @param luma [Numo::SFloat] [n]
      # @param other [Numo::SFloat] [n] of another frame
      # @param unlike [Numo::SFloat] [n] square of their difference, over what noise makes of it
      # @return [Numo::Int32, nil] [n] where in the other frame each pixel is, as places in its plane; nil: all where they were
      def call(luma, other, unlike)
        moved = blocks(unlike)
        return if moved.empty? || @reach.zero?

        rows, columns = [@rows, @columns].each_with_index.map { |starts, axis| Numo::Int32.cast(moved.map { |block| starts[block[axis]] }).reshape(moved.size, 1) }
        down, across = found(luma, other, rows, columns)
        placed(rows, columns, down, across)
      end

      private

      # Where blocks begin within the window, the first one perhaps before it.
      def starts(from, count) = (-(from % BLOCK)...count).step(BLOCK).to_a

      def blocks(unlike)
        means = Area::Blocks.new(BLOCK).means(unlike.reshape(@window.height, @window.width), @window)
        means.gt(LIKE).where.to_a.map { |at| at.divmod(@columns.size) }
      end

      def found(luma, other, rows, columns)
        down, across = Numo::Int32.zeros(*rows.shape), Numo::Int32.zeros(*rows.shape)
        at = (0...BLOCK).step(@every).to_a
        inner = at.product(at)
        y, x = inner.transpose.map { |list| Numo::Int32.cast(list).reshape(1, inner.size) }
        wanted = luma[places(rows + y, columns + x)].dup
        least = cost(wanted, other, rows + y, columns + x)
        step = 2**Math.log2(@reach).floor
        while step >= 1
          best_down, best_across = down, across
          WAYS.each do |way_down, way_across|
            here_down, here_across = [[down, way_down], [across, way_across]].map { |so_far, way| (so_far + way * step).clip(-@reach, @reach) }
            made = cost(wanted, other, rows + here_down + y, columns + here_across + x)
            better = Numo::Int32.cast(made < least)
            best_down, best_across = [[best_down, here_down], [best_across, here_across]].map { |old, one| old + (one - old) * better }
            least = Numo::SFloat.minimum(least, made)
          end
          down, across = best_down, best_across
          step /= 2
        end
        [down, across]
      end

      def cost(wanted, other, rows, columns) = ((other[places(rows, columns)] - wanted)**2).mean(axis: 1).reshape(wanted.shape[0], 1)

      def places(rows, columns) = rows.clip(0, @window.height - 1) * @window.width + columns.clip(0, @window.width - 1)

      def placed(rows, columns, down, across)
        inner = (0...BLOCK).to_a.product((0...BLOCK).to_a)
        y, x = inner.transpose.map { |list| Numo::Int32.cast(list).reshape(1, inner.size) }
        all = Numo::Int32.new(@window.size).seq
        mine_rows, mine_columns = rows + y, columns + x
        inside = (mine_rows >= 0) & (mine_rows < @window.height) & (mine_columns >= 0) & (mine_columns < @window.width)
        to, from = places(mine_rows, mine_columns), places(mine_rows + down, mine_columns + across)
        all[to[inside]] = from[inside]
        all
      end
    end
  end
end
