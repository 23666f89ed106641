# frozen_string_literal: true

module Mordant
  module Pointwise
    # A part of what a chain changes: out = in + strength * (chain(in) - in).
    class Blend
      # @param chain [Chain]
      # @param strength [Float] 0.0..1.0
      def initialize(chain, strength)
        @chain, @strength = chain, strength
      end

      def call(planes) = mix(planes, @chain.operations)

      def merge(_following) = nil

      def tabulate
        tabulated = @chain.operations.map(&:tabulate)
        Formula.new { |planes| mix(planes, tabulated) }
      end

      private

      def mix(planes, operations)
        changed = Chain.reduce(operations, planes.map(&:dup))
        planes.zip(changed).map { |before, after| before + (after - before) * @strength }
      end
    end
  end
end
