# frozen_string_literal: true

module Mordant
  module Pointwise
    # Memory for what is needed only while an operation runs on a tile. Given
    # back at once it is handed out again while still in cache; left to the
    # garbage collector, fresh memory costs more than the arithmetic.
    class Scratch
      # @yieldparam scratch [Scratch]
      # @return what the block returns, which must not be kept in scratch
      def self.use
        scratch = new
        yield scratch
      ensure
        scratch&.release
      end

      def initialize
        @held = []
      end

      # @param array [Numo::NArray] owned, not a view; unusable after the block
      # @return [Numo::NArray] the same
      def <<(array)
        @held << array
        array
      end

      def release
        @held.each(&:free)
        @held.clear
      end
    end
  end
end
