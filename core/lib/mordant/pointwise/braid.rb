# frozen_string_literal: true

module Mordant
  module Pointwise
    # Chains that take the same input, their changes added together:
    # out = in + sum of (chain_i(in) - in).
    class Braid
      # @param chains [Array<Chain>]
      def initialize(chains)
        @chains = chains.freeze
        freeze
      end

      # @param planes [Array<Numo::NArray>] not written to
      # @return [Array<Numo::NArray>]
      def call(planes) = mix(planes, @chains.map(&:operations))

      def merge(_following) = nil

      def tabulate
        tabulated = @chains.map { |chain| chain.operations.map(&:tabulate) }
        Formula.new(recordable: tabulated.flatten.all? { |operation| Recording.takes?(operation) }) { |planes| mix(planes, tabulated) }
      end

      private

      def mix(planes, strands)
        sum = planes.map(&:dup)
        strands.each do |operations|
          changed = Chain.reduce(operations, planes.map(&:dup))
          sum = sum.each_with_index.map { |plane, channel| plane + (changed[channel] - planes[channel]) }
        end
        sum
      end
    end
  end
end
