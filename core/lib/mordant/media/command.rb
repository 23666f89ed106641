# frozen_string_literal: true

require "open3"

module Mordant
  module Media
    # A child process: arguments as an array, no shell, a time limit.
    module Command
      # Kept of what a program says on standard error.
      LONGEST_COMPLAINT = 2_000

      module_function

      # @param arguments [Array<String>]
      # @param path [String] the file it is about, for errors
      # @param limit [Numeric] seconds
      # @return [String] standard output, binary
      # @raise [MediaError] when it fails or takes longer
      def run(arguments, path:, limit: 30)
        output = nil
        stream(arguments, path:, limit:) { |io| output = io.read }
        output
      end

      # @yieldparam io [IO] standard output, binary
      # @raise [MediaError]
      def stream(arguments, path:, limit: 600, &block)
        Open3.popen3(*arguments, pgroup: true) do |input, output, complaints, process|
          input.close
          output.binmode
          said = collect(complaints)
          watch(process, limit) { block.call(output) }
          finish(process, said, path)
        end
      rescue Errno::ENOENT
        raise MediaError.new(path, "#{arguments.first} is not installed; bin/setup installs it")
      end

      # A process that takes frames on standard input.
      #
      # @yieldparam io [IO] standard input, binary
      # @raise [MediaError]
      def feed(arguments, path:)
        Open3.popen3(*arguments, pgroup: true) do |input, output, complaints, process|
          input.binmode
          output.close
          said = collect(complaints)
          begin
            yield input
            input.close
          rescue Errno::EPIPE
            process.join # it has said why on standard error
          rescue Exception # rubocop:disable Lint/RescueException -- the child goes with whatever ends this
            kill(process)
            raise
          end
          finish(process, said, path)
        end
      end

      # Reads on beside the work, so that a talkative program does not block.
      #
      # @return [Thread] whose value is what was said last
      def collect(complaints)
        Thread.new do
          text = complaints.read.to_s.dup.force_encoding("UTF-8").scrub.strip
          text[-LONGEST_COMPLAINT, LONGEST_COMPLAINT] || text
        rescue IOError
          "" # whoever read the output stopped early, and asks no more
        end
      end

      def watch(process, limit)
        late = false
        timer = Thread.new do
          sleep limit
          late = true
          kill(process)
        end
        yield
      rescue Errno::EPIPE, IOError
        raise unless late
      ensure
        timer.kill
        kill(process) if $! # rubocop:disable Style/SpecialGlobalVars
      end

      def kill(process)
        Process.kill("KILL", -process.pid)
      rescue Errno::ESRCH, Errno::EPERM
        nil # it has already ended
      end

      def finish(process, said, path)
        status = process.value
        return if status.success?

        complaint = said.value.lines.last(2).join(" ").strip.gsub(/\s+/, " ")
        complaint = status.signaled? ? "stopped by signal #{status.termsig}" : "exit code #{status.exitstatus}" if complaint.empty?
        raise MediaError.new(path, complaint)
      end
    end
  end
end
