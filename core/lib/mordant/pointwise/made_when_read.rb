# frozen_string_literal: true

module Mordant
  module Pointwise
    # Tables whose entries are made when values first fall among them: those of a
    # picture span a part of a table, and a hand that drags asks for a new one at
    # every move. An entry not made yet is NaN, and so is what is read from it.
    #
    # A member has read(plane), blocks_of(plane), make(block range), and record(plane), which says by
    # what a Recorded plane has how it is read.
    module MadeWhenRead
      # @param plane [Numo::SFloat, Recorded] contiguous vector
      # @return [Numo::SFloat, Recorded] a new vector; NaN stays NaN
      def call(plane)
        return record(plane) if plane.is_a?(Recorded)

        out = read(plane)
        out.sum.nan? ? complete(plane, out) : out
      rescue IndexError # the place of a NaN
        complete(plane, nil)
      end

      # The same of either element type.
      #
      # @param plane [Numo::SFloat, Numo::DFloat, Recorded]
      # @return [Numo::SFloat, Numo::DFloat, Recorded]
      def over(plane) = plane.is_a?(Numo::DFloat) ? Numo::DFloat.cast(call(Numo::SFloat.cast(plane))) : call(plane)

      # The same without looking whether an entry is missing: what is read there is NaN.
      #
      # @param plane [Numo::SFloat] contiguous vector
      # @return [Numo::SFloat] a new vector
      # @raise [IndexError] of a plane with NaN
      def quick(plane) = read(plane)

      # @return [String] pairs of floats, start and rise of each entry; those not made yet are NaN
      def memory
        made, kept = @rounds.size, @memory.last
        return kept.last if kept && kept.first == made

        @memory.replace([[made, @entries.to_binary]]).last.last
      end

      private

      def begin_entries(size, blocks)
        @entries = Table.unmade(size)
        @made = Array.new(blocks, false)
        @rounds = [] # of making some
        @memory = [] # how many there were when it was read, and what it was
      end

      # Makes the entries that are missing and reads again.
      def complete(plane, out)
        out&.free
        return around(plane) if plane.sum.nan?

        make_missing(blocks_of(plane))
        read(plane)
      end

      # The same where some values are NaN, or infinite both ways.
      def around(plane)
        numbers = ~plane.isnan
        result = plane.dup
        return result unless numbers.any?

        known = plane[numbers].dup
        make_missing(blocks_of(known))
        result[numbers] = read(known)
        result
      end

      def make_missing(blocks)
        blocks.reject { |block| @made[block] }.slice_when { |a, b| b != a + 1 }.each do |run|
          make(run.first..run.last)
          run.each { |block| @made[block] = true }
          @rounds << run
        end
      end
    end
  end
end
