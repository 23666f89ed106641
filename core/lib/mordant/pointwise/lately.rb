# frozen_string_literal: true

module Mordant
  module Pointwise
    # Planes that were made lately, by all that they are made of: what does not depend on a picture, such as grain and shapes, is the same
    # from one picture to the next while a hand moves. So is what is read of such, in lists. Threads may share it.
    class Lately
      LARGEST = 600_000 # numbers of a plane, as many as a screen shows; a larger one is made each time

      # @param most [Integer] planes
      def initialize(most)
        @most, @kept, @lock = most, {}, Mutex.new
        freeze
      end

      # @param key [Object] equal ones stand for equal planes
      # @yieldreturn [#size] made where it is not there
      # @return [#size] never to be written to
      def fetch(key)
        found = @lock.synchronize { @kept.delete(key)&.tap { |plane| @kept[key] = plane } }
        found || yield.tap { |plane| keep(key, plane) unless own?(plane) }
      end

      # @param plane [#size] that was fetched
      # @return [Boolean] it is nobody else's
      def own?(plane) = plane.size > LARGEST

      private

      # What was asked for longest ago goes.
      def keep(key, plane)
        @lock.synchronize do
          @kept[key] = plane
          @kept.shift while @kept.size > @most
        end
      end
    end
  end
end
