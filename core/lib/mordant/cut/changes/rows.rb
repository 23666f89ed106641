# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # Pictures as rows of numbers, one after another, and how far they are from each other.
      class Rows
        AT_ONCE = 64 # rows compared together, so that memory stays flat

        # @return [Numo::SFloat] [count, n], 0..1
        attr_reader :values
        # @return [Array<Float>] how far each is from the one before, 0..1; 0 of the first
        attr_reader :steps

        # @param values [Numo::SFloat] [count, n]
        def initialize(values)
          @values = values
          @steps = [0.0, *lagged]
          @apart = {}
        end

        # @return [Integer]
        def count = values.shape[0]

        # @return [Numo::SFloat] [n]
        def [](frame) = values[frame, true]

        # @return [Float] mean distance of two, 0..1
        def apart(a, b)
          return steps[[a, b].max] if (a - b).abs == 1

          @apart[(a < b) ? [a, b] : [b, a]] ||= (self[a] - self[b]).abs.mean
        end

        private

        # @return [Array<Float>] of each from the one before it
        def lagged
          (1...count).step(AT_ONCE).flat_map do |from|
            to = [from + AT_ONCE, count].min
            (values[from...to, true] - values[(from - 1)...(to - 1), true]).abs.mean(axis: 1).to_a
          end
        end
      end
    end
  end
end
