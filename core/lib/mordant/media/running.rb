# frozen_string_literal: true

require "open3"

module Mordant
  module Media
    # A child process that has been started and is spoken to by pipes. It goes with whatever ends the work with it early.
    class Running
      LONGEST_COMPLAINT = 2_000 # characters kept of what it says on standard error

      # @return [IO] its standard input, binary
      attr_reader :input

      # @param arguments [Array<String>] no shell
      # @param beside [Boolean] it writes to a second pipe, its descriptor 3
      # @param given [Hash{Integer => IO}] its descriptor to an end of a pipe, which is closed here
      # @raise [Errno::ENOENT] it is not installed
      def initialize(arguments, beside: false, given: {})
        @second, theirs = IO.pipe if beside
        given = {**given, 3 => theirs} if beside
        @input, @output, complaints, @process = Open3.popen3(*arguments, pgroup: true, **given)
        [@input, @output].each(&:binmode)
        @said = collect(complaints)
      rescue
        @second&.close
        raise
      ensure
        given.each_value(&:close)
      end

      # Reads what it writes, until it ends.
      #
      # @param path [String] the file it is about, for errors
      # @param limit [Numeric] seconds that it may say nothing
      # @yieldparam outflow [Outflow] standard output
      # @yieldparam second [Outflow, nil]
      # @raise [MediaError]
      # @raise [Outflow::Silence]
      # @raise [Errno::ENOSPC] when the disk it writes to is full
      def read(path, limit)
        with(path) { yield Outflow.new(@output, limit), @second && Outflow.new(@second, limit) }
      end

      # Writes to it, until all is written and it ends.
      #
      # @yieldparam io [IO] standard input
      # @raise [MediaError]
      # @raise [Errno::ENOSPC] when the disk it writes to is full
      def feed(path)
        @output.close
        with(path) do
          yield input
          input.close
        rescue Errno::EPIPE
          @process.join # it has said why on standard error
        end
      end

      # @return [Boolean] it has not ended by itself
      def alive? = @process.alive?

      # Ends it.
      def close
        Process.kill("KILL", -@process.pid) if alive?
      rescue Errno::ESRCH, Errno::EPERM
        nil # it has already ended
      ensure
        [input, @output, @second].each { |io| io&.close }
        @process.join
      end

      private

      def with(path)
        yield
        finish(path)
      ensure
        close
      end

      # Reads on beside the work, so that a talkative program does not block.
      #
      # @return [Thread] whose value is what was said last
      def collect(complaints)
        Thread.new do
          text = complaints.read.to_s.dup.force_encoding("UTF-8").scrub.strip
          text[-LONGEST_COMPLAINT, LONGEST_COMPLAINT] || text
        ensure
          complaints.close
        end
      end

      def finish(path)
        status = @process.value
        raise Errno::ENOSPC, path if @said.value.include?(Command::FULL)
        return if status.success? && !Command::UNWRITTEN.match?(@said.value)

        raise Command::Failed.new(path, Complaint.of(@said.value, path) || (status.signaled? ? "stopped by signal #{status.termsig}" : "exit code #{status.exitstatus}"))
      end
    end
  end
end
