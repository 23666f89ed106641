# frozen_string_literal: true

require "fiddle"

module Server
  # Gives memory back that large pictures have left behind in a web process, or frames in a worker.
  #
  # The allocator keeps what tiles and frames want again at once (see Supervisor::ENVIRONMENT),
  # up to half a gigabyte. When nobody has asked for a while, it goes back to the machine. A
  # process that stays too large even so ends itself; Puma starts another while the rest serve.
  class Memory
    RESTING = 2 # seconds without a request
    LOOK_EVERY = 1 # seconds
    MUCH = 400 * 1024 * 1024 # bytes, above which memory is given back
    MOST = 900 * 1024 * 1024 # bytes, above which a process at rest ends
    PAGE = 4096 # bytes

    # Of a process.
    def self.current = @current ||= new

    # Counts requests while they last.
    class Counting
      def initialize(app)
        @app = app
      end

      def call(env) = Memory.current.during { @app.call(env) }
    end

    def initialize
      @lock = Mutex.new
      @busy, @last = 0, now
    end

    # Counts a request while it lasts.
    def during
      @lock.synchronize { @busy += 1 }
      yield
    ensure
      @lock.synchronize { (@busy -= 1) && @last = now }
    end

    # Looks now and then, for as long as the process lives.
    #
    # @yield when it had better end
    # @return [Thread]
    def watch(&too_large)
      Thread.new do
        loop do
          sleep LOOK_EVERY
          look(&too_large)
        end
      end
    end

    # @yield when it had better end
    def look
      return unless resting? && size > MUCH && @seen != @last

      @seen = @last # once after each time of work
      give_back
      yield if size > MOST
    end

    # Collects what nobody has any more, and gives its memory back.
    #
    # Source: malloc_trim(3) of the GNU C library.
    def give_back
      GC.start
      @trim ||= Fiddle::Function.new(Fiddle::Handle::DEFAULT["malloc_trim"], [Fiddle::TYPE_SIZE_T], Fiddle::TYPE_INT)
      @trim.call(0)
    end

    # @return [Integer] bytes of this process that are in memory
    def size = File.read("/proc/self/statm").split[1].to_i * PAGE

    private

    def resting? = @lock.synchronize { @busy.zero? && now - @last > RESTING }

    def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end
