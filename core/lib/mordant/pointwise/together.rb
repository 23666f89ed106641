# frozen_string_literal: true

module Mordant
  module Pointwise
    # Parts of one piece of work, on several processors at once. What is compiled runs without Ruby's lock, so that threads of one process do.
    #
    # A part is taken by whoever is free, so that nobody waits for a thread that the machine does not let run. What a part does is not
    # divided further while there are parts for all.
    module Together
      EACH = 2 # parts for each thread, as they are not ready at the same time
      PART = 30_000 # pixels that another thread is worth
      WHOLE = 100_000 # pixels of planes that are worth being worked on beside each other

      @count = 1
      @lock = Mutex.new

      class << self
        # @return [Integer] threads that work at once, with the one that asks; 1: nobody else works
        attr_accessor :count

        # @param size [Integer] of what is worked on, in steps that can be done apart
        # @param pixels [Integer] in a step
        # @param least [Integer] steps that a part has to have
        # @return [Array<Range>] that follow each other, of about PART pixels or more
        def parts(size, pixels = 1, least: 1)
          many = (count == 1 || Work.more?) ? 1 : [count * EACH, size * pixels / PART, size / least].min.clamp(1, nil)
          (0..many).map { |at| size * at / many }.each_cons(2).map { |from, to| from...to }
        end

        # @param parts [Array]
        # @param pixels [Integer] of each, where they are planes
        # @yieldparam part [Object] one of them; from any thread
        # @return [Array] what the block returns of each
        # @raise what it raises of the first
        def each(parts, pixels: WHOLE, &block)
          return parts.map(&block) if parts.size == 1 || count == 1 || pixels < WHOLE

          work = Work.new(parts, block)
          others.first([parts.size, count].min - 1).each { |other| other << work }
          Work.here&.tell(work)
          work.share
          work.done
        end

        private

        # As many as there are at least; they do not live on in a process that was forked.
        def others
          known, process = @others
          return known if process == Process.pid && known.size >= count - 1

          @lock.synchronize do
            known, process = @others
            known = [] unless process == Process.pid
            @others = [known + Array.new([count - 1 - known.size, 0].max) { waiting }, Process.pid]
          end.first
        end

        # @return [Thread::Queue] of a thread that does what comes by it
        def waiting
          Thread::Queue.new.tap do |queue|
            Thread.new { loop { queue.pop.share } }
          end
        end
      end

      # Parts that nobody has taken yet, and what has been made of the others.
      class Work
        HERE = :mordant_work # that the thread does parts of

        # @return [Work, nil] that the thread does a part of
        def self.here = Thread.current[HERE]

        # @return [Boolean] that has more that nobody has taken
        def self.more? = here&.more? || false

        def initialize(parts, block)
          @parts, @block = parts, block
          @left = parts.each_index.to_a
          @made, @owner = Thread::Queue.new, Thread.current
        end

        # Does parts while there are some.
        def share
          outer, Thread.current[HERE] = Thread.current[HERE], self
          while (at = @left.shift) do @made << [at, *made(@parts[at])] end
        ensure
          Thread.current[HERE] = outer
        end

        # @return [Boolean] there are parts that nobody has taken
        def more? = @left.any?

        # Whoever waits for the rest does some of what one of its parts is made of.
        #
        # @param inner [Work]
        def tell(inner) = @owner == Thread.current || @made << inner

        # @return [Array] once all are; nothing is held any more by threads that remember the work
        def done
          made = Array.new(@parts.size) { waited }.sort_by(&:first)
          @parts = @block = nil
          made.each { |_, _, error| raise error if error }.map { |_, one, _| one }
        end

        private

        # @return [Array] a part's number, and as #made
        def waited
          loop do
            one = @made.pop
            one.is_a?(Work) ? one.share : (return one)
          end
        end

        # @return [Array] what is made of a part, or nil and what was raised: whatever it was, it is raised again where all are waited for
        def made(part)
          [@block.call(part), nil]
        rescue Exception => e # rubocop:disable Lint/RescueException
          [nil, e]
        end
      end
      private_constant :Work
    end
  end
end
