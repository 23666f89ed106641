# frozen_string_literal: true

module Mordant
  module Media
    # An ffmpeg that has been started and waits to be told what to decode, as it takes longer to load its libraries than to decode
    # a frame. It differs from one that is started for a stretch (see TimedPipe) in how it is told: by a list of one file,
    # and by filters that come through a pipe. What it makes of a file is the same; where it does not come with a frame that is due, whoever asks
    # goes the usual way.
    class Waiting
      GIVEN = 4 # its descriptor for filters
      # A list's own times begin where it is entered.
      ARGUMENTS = ["ffmpeg", "-v", "error", "-xerror", "-protocol_whitelist", "file,pipe", "-format_whitelist", ["concat", *Command::CONTAINERS].join(","), "-f", "concat", "-safe", "0", "-i", "pipe:0",
        "-map", "0:V:0", "-an", "-fps_mode", "passthrough", "-filter_script:v", "pipe:#{GIVEN}", *TimedPipe::OUTPUT].freeze

      class << self
        # From now on some are ready in this process.
        #
        # @param count [Integer]
        def keep(count)
          @ready ||= Thread::Queue.new
          count.times { renew }
        end

        # Lends one that is ready; the next is started once it has done its work. For a file that one has not come along with, none
        # is lent again.
        #
        # @param path [String]
        # @yieldparam waiting [Waiting]
        # @yieldreturn [Integer] frames that have come
        # @return [Integer] the same; 0 where none is ready
        def lend(path)
          waiting = (take unless strange.include?(path)) or return 0
          begin
            yield(waiting).tap { |done| strange << path if done.zero? }
          ensure
            renew
          end
        end

        # Ends those that are ready; none is kept any more.
        def stop
          take&.close until @ready.nil? || @ready.empty?
          @ready = nil
        end

        private

        def strange = @strange ||= Set.new

        def renew
          @ready << new
        rescue SystemCallError
          nil # no room for a process just now; there is one less
        end

        def take
          @ready&.pop(true)
        rescue ThreadError
          nil # none is ready
        end
      end

      def initialize
        given, @filters = IO.pipe
        @running = Running.new(ARGUMENTS, beside: true, given: {GIVEN => given})
      end

      # Decodes; can be told once.
      #
      # @param path [String]
      # @param from [Rational] seconds, presentation time of a frame at which a decoder can begin
      # @param filter [String]
      # @param count [Integer] frames that come out of it
      # @param bytes [Integer] of a frame
      # @param due [#call] see TimedPipe.read, in ms after from
      # @yieldparam data [String]
      # @return [Integer] frames in a row that came as they should
      def read(path, from:, filter:, count:, bytes:, due:, &block)
        tell(@running.input, format("ffconcat version 1.0\nfile %s\ninpoint %.6f\n", Command.listed(path), from))
        tell(@filters, "#{filter},trim=end_frame=#{count}")
        TimedPipe.take(count, bytes, due, block) { |frames| Command.read(@running, ARGUMENTS.first, path:, &frames) }.first
      rescue Errno::EPIPE
        0 # it has ended meanwhile
      end

      def close
        @filters.close
        @running.close
      end

      private

      def tell(io, text)
        io.write(text)
        io.close
      end
    end
  end
end
