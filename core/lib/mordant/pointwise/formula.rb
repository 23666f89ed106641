# frozen_string_literal: true

module Mordant
  module Pointwise
    # Channels that depend on each other in a way no matrix holds.
    class Formula
      # @param recordable [Boolean] see Pointwise
      # @yieldparam planes [Array<Numo::NArray>] three vectors; not to be written to
      # @yieldreturn [Array<Numo::NArray>] three new vectors
      def initialize(recordable: false, &block)
        @recordable, @block = recordable, block
        freeze
      end

      def call(planes) = @block.call(planes)

      def merge(_following) = nil

      def tabulate = self

      def recordable? = @recordable
    end
  end
end
