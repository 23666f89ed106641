# frozen_string_literal: true

module Mordant
  module Media
    # Programs that are run: arguments as an array, no shell, a limit to how long one may stand still.
    module Command
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
      def stream(arguments, path:, limit: PATIENCE, beside: false, &block)
        running = start(arguments, path, beside:)
        running.input.close
        read(running, arguments.first, path:, limit:, &block)
      end

      # @return [String] a file as a list for ffmpeg names it
      def listed(path) = "'#{"file:#{File.expand_path(path)}".gsub("'", "'\\\\''")}'"

      # @param running [Running]
      # @param name [String] of the program
      # @see .stream
      def read(running, name, path:, limit: PATIENCE, &block)
        running.read(path, limit, &block)
      rescue Outflow::Silence
        raise MediaError.new(path, "#{name} stood still for #{limit} seconds and was stopped; look whether the disk answers, and try again")
      end

      # A process that takes frames on standard input.
      #
      # @yieldparam io [IO] standard input, binary
      # @raise [MediaError]
      # @raise [Errno::ENOSPC] when the disk it writes to is full
      def feed(arguments, path:, &block) = start(arguments, path).feed(path, &block)

      def start(arguments, path, **how)
        Running.new(arguments, **how)
      rescue Errno::ENOENT
        raise MediaError.new(path, "#{arguments.first} is not installed; bin/setup installs it")
      end
    end
  end
end
