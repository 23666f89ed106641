# frozen_string_literal: true

module Server
  module Pictures
    # One picture is computed at a time in a process, as array maths holds Ruby's
    # lock; while a request waits, a newer one of the same screen takes its place.
    class Gate
      # The request was overtaken by a newer one.
      class Overtaken < StandardError; end

      def initialize
        @turn = Mutex.new
        @lock = Mutex.new
        @newest = {}
      end

      # @param screen [String, nil] who asks; nil is never overtaken
      # @param sequence [Integer] grows with each request of a screen
      # @raise [Overtaken]
      def pass(screen, sequence)
        announce(screen, sequence) if screen
        @turn.synchronize do
          raise Overtaken if screen && newest(screen) > sequence

          yield
        end
      end

      private

      MOST_SCREENS = 256

      def announce(screen, sequence)
        @lock.synchronize do
          @newest[screen] = [@newest.delete(screen) || 0, sequence].max
          @newest.shift while @newest.size > MOST_SCREENS
        end
      end

      def newest(screen) = @lock.synchronize { @newest.fetch(screen, 0) }
    end
  end
end
