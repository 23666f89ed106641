# frozen_string_literal: true

module Mordant
  module Pointwise
    # Values held between limits.
    class Clamp
      # @param low [Float, nil]
      # @param high [Float, nil]
      def initialize(low, high)
        @low, @high = low, high
        freeze
      end

      def call(planes) = planes.map { |plane| plane.clip(@low, @high) }

      def merge(_following) = nil

      def tabulate = self

      def recordable? = true
    end
  end
end
