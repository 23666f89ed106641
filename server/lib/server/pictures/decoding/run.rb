# frozen_string_literal: true

module Server
  module Pictures
    class Decoding
      # A stretch that is being decoded by a thread of this process. Where it pauses after its first frame it lets others
      # decode frames of the clip, is hurried by who wants one of its own, and given up for one of another.
      class Run
        attr_reader :stretch

        # @param shelf [Shelf]
        # @param stretch [Stretch]
        # @param lock [File, nil] of its folder, held
        def initialize(shelf, stretch, lock)
          @shelf, @stretch, @lock = shelf, stretch, lock
          @told = Thread::Queue.new
        end

        # @yield when it has ended
        # @return [self]
        def start
          @thread = Thread.new do
            decode
          rescue Mordant::MediaError => e
            @told << e # later frames may be bad while the first is good
          rescue Exception => e # rubocop:disable Lint/RescueException -- whoever waits is told
            @told << e
            raise
          ensure
            @lock&.close
            yield
          end
          self
        end

        # @return [Mordant::Media::Codes]
        # @raise [Mordant::MediaError]
        def first
          first = @told.pop
          first.is_a?(Exception) ? raise(first) : first
        end

        def hurry = @hurried = true

        def give_up = @given_up = stretch.pause.positive?

        def alive? = @thread.alive?

        def join = @thread.join

        private

        def decode
          begun = false
          stretch.each do |codes, name|
            @told << codes unless begun
            codes.rgb.to_binary.tap { |data| @shelf.write(name, data) }.clear
            pause unless begun || stretch.pause.zero?
            break if @given_up

            begun = true
          end
        end

        def pause
          @lock&.close
          over = now + stretch.pause
          sleep LOOK_EVERY until @hurried || @given_up || now > over
        end

        def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      end
    end
  end
end
