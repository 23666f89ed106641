# frozen_string_literal: true

module Server
  module Pictures
    # Decodes stretches of clips onto a shelf. The frame that is asked for is told as soon as it is there; those after it
    # follow. A stretch is decoded by one process at a time, as others mostly come for the same frames.
    class Decoding
      LOOK_EVERY = 0.004 # seconds, for what another one does

      # @param shelf [Shelf]
      def initialize(shelf)
        @shelf = shelf
        @runs = []
        @lock = Mutex.new
      end

      # @param stretch [Stretch]
      # @yieldreturn [Mordant::Media::Codes, nil] its first frame, once it lies on the shelf
      # @return [Mordant::Media::Codes] the same
      # @raise [Mordant::MediaError]
      def first(stretch)
        run = running(stretch)
        sleep LOOK_EVERY while run&.alive? && !(found = yield)
        return found if found

        lock = @shelf.lock(stretch.folder)
        sleep LOOK_EVERY until (found = yield) || mine?(lock)
        return found if found ||= yield # it came between both looks

        run, lock = run(stretch, lock), nil # it is the run's now
        run.first
      ensure
        lock&.close
      end

      # Begins, for somebody who wants the first frame soon; not where frames of this clip are being decoded already.
      #
      # @param stretch [Stretch]
      def prepare(stretch)
        return if running(stretch)

        lock = @shelf.lock(stretch.folder)
        mine?(lock) ? run(stretch, lock) : lock.close
        nil
      end

      # Waits until all that is being decoded has come.
      def finish = runs.each(&:join)

      private

      # @param lock [File, nil] nil: there is no room for one, and nothing will be kept
      def mine?(lock) = lock.nil? || lock.flock(File::LOCK_EX | File::LOCK_NB)

      def runs = @lock.synchronize { @runs.dup }

      # What pauses for another one's sake is not wanted any more.
      #
      # @return [Run, nil] that brings its first frame
      def running(stretch)
        covering, others = runs.partition { |run| run.stretch.cover?(stretch) }
        others.each(&:give_up) if stretch.pause.positive?
        covering.each { |run| run.hurry unless run.stretch.first == stretch.first }.first
      end

      def run(stretch, lock)
        @lock.synchronize do
          run = Run.new(@shelf, stretch, lock).start { @lock.synchronize { @runs.delete(run) } }
          @runs << run
          run
        end
      end
    end
  end
end
