# frozen_string_literal: true

module Mordant
  module Pointwise
    # A part of what a chain changes: out = base + strength * (chain(in) - base), where base is
    # what comes in, or what another chain makes of it.
    class Blend
      # @param chain [Chain]
      # @param strength [Float] 0.0..1.0
      # @param base [Chain, nil]
      def initialize(chain, strength, base: nil)
        @chain, @strength, @base = chain, strength, base&.operations
      end

      def call(planes) = mix(planes, @chain.operations, @base.to_a)

      def merge(_following) = nil

      def tabulate
        tabulated, base = [@chain.operations, @base.to_a].map { |operations| operations.map(&:tabulate) }
        Formula.new(recordable: [*tabulated, *base].all? { |operation| Recording.takes?(operation) }) { |planes| mix(planes, tabulated, base) }
      end

      private

      def mix(planes, operations, base)
        changed = Chain.reduce(operations, planes.map(&:dup))
        start = base.empty? ? planes : Chain.reduce(base, planes.map(&:dup))
        start.zip(changed).map { |before, after| before + (after - before) * @strength }
      end
    end
  end
end
