# frozen_string_literal: true

require "open3"

module Mordant
  module Media
    # A child process: arguments as an array, no shell, a limit to how long it may stand still.
    module Command
      # Kept of what a program says on standard error.
      LONGEST_COMPLAINT = 2_000
      # Seconds that a program may say nothing.
      PATIENCE = 120
      # What ffmpeg may open: these containers, from files; no lists that lead elsewhere.
      CONTAINERS = %w[mov matroska mxf avi mpegts mpeg nut image2 png_pipe tiff_pipe dpx_pipe exr_pipe jpeg_pipe].freeze
      LIMITS = ["-protocol_whitelist", "file,pipe", "-format_whitelist", CONTAINERS.join(",")].freeze
      PROBE = ["ffprobe", "-v", "error", *LIMITS].freeze

      # What the C library calls a full disk.
      FULL = "No space left on device"
      # What ffmpeg says of the end of a file that it could not write, and yet ends well.
      UNWRITTEN = /Error (?:writing trailer|closing file)/

      # A program ended and said that something is wrong.
      class Failed < MediaError; end

      module_function

      # @param arguments [Array<String>]
      # @param path [String] the file it is about, for errors
      # @param limit [Numeric] seconds that it may say nothing
      # @return [String] standard output, binary
      # @raise [MediaError] when it fails or stands still
      def run(arguments, path:, limit: PATIENCE)
        output = nil
        stream(arguments, path:, limit:) { |outflow| output = outflow.read }
        output
      end

      # @param limit [Numeric] seconds that it may say nothing
      # @param beside [Boolean] with a second pipe to read, its descriptor 3
      # @yieldparam outflow [Outflow] standard output
      # @yieldparam second [Outflow, nil]
      # @raise [MediaError] when it fails or stands still
      # @raise [Errno::ENOSPC] when the disk it writes to is full
      def stream(arguments, path:, limit: PATIENCE, beside: false)
        started = false
        second, theirs = IO.pipe if beside
        Open3.popen3(*arguments, pgroup: true, **(beside ? {3 => theirs} : {})) do |input, output, complaints, process|
          started = true
          [input, theirs].each { |io| io&.close }
          output.binmode
          said = collect(complaints)
          ending(process) { yield Outflow.new(output, limit), second && Outflow.new(second, limit) }
          finish(process, said, path)
        end
      rescue Outflow::Silence
        raise MediaError.new(path, "#{arguments.first} stood still for #{limit} seconds and was stopped; look whether the disk answers, and try again")
      rescue Errno::ENOENT
        raise if started # of a file that the reader of its output missed

        raise MediaError.new(path, "#{arguments.first} is not installed; bin/setup installs it")
      ensure
        [second, theirs].each { |io| io&.close }
      end

      # A process that takes frames on standard input.
      #
      # @yieldparam io [IO] standard input, binary
      # @raise [MediaError]
      # @raise [Errno::ENOSPC] when the disk it writes to is full
      def feed(arguments, path:)
        Open3.popen3(*arguments, pgroup: true) do |input, output, complaints, process|
          input.binmode
          output.close
          said = collect(complaints)
          ending(process) do
            yield input
            input.close
          rescue Errno::EPIPE
            process.join # it has said why on standard error
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

      # The child goes with whatever ends the block early.
      def ending(process)
        yield
      rescue Exception # rubocop:disable Lint/RescueException
        kill(process)
        raise
      end

      def kill(process)
        Process.kill("KILL", -process.pid)
      rescue Errno::ESRCH, Errno::EPERM
        nil # it has already ended
      end

      def finish(process, said, path)
        status = process.value
        raise Errno::ENOSPC, path if said.value.include?(FULL)
        return if status.success? && !UNWRITTEN.match?(said.value)

        complaint = said.value.lines.last(2).join(" ").strip.gsub(/\s+/, " ")
        complaint = status.signaled? ? "stopped by signal #{status.termsig}" : "exit code #{status.exitstatus}" if complaint.empty?
        raise Failed.new(path, complaint)
      end
    end
  end
end
