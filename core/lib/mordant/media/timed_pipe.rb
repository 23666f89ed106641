# frozen_string_literal: true

module Mordant
  module Media
    # Frames out of ffmpeg with the time of each beside it, so that none is taken for another.
    # Frames come on one pipe, their times on another, a line each before its frame.
    module TimedPipe
      OUTPUT = ["-copyts", "-enc_time_base", "-1", "-c:v", "rawvideo", "-f", "tee", "[f=mkvtimestamp_v2:flush_packets=1]pipe\\:3|[f=rawvideo]pipe\\:1"].freeze
      TOLERANCE = 1 # ms, to which times are told

      # A frame came that is not the one that was due.
      class Astray < StandardError; end
      private_constant :Astray

      module_function

      # @param arguments [Array<String>] that open the input
      # @param count [Integer] frames
      # @param bytes [Integer] of a frame
      # @param path [String] for errors
      # @param strict [Boolean] stop at the first complaint of the decoder
      # @param due [#call] number of a frame, from 0, to its time in ms; nil of one that is not known
      # @yieldparam data [String]
      # @return [Array(Integer, String)] frames in a row that came as they should, and what ffmpeg complained of, or nil
      def read(arguments, filter:, count:, bytes:, path:, strict:, due:, &block)
        command = ["ffmpeg", "-v", "error", "-nostdin", *("-xerror" if strict), *arguments, "-map", "0:V:0", "-frames:v", count.to_s, "-an", "-fps_mode", "passthrough", "-vf", filter, *OUTPUT]
        take(count, bytes, due, block) { |frames| Command.stream(command, path:, beside: true, &frames) }
      end

      # @param count [Integer] frames
      # @param bytes [Integer] of a frame
      # @param due [#call] see .read
      # @param block [#call] to which frames are given
      # @yieldparam frames [Proc] which takes them from two Outflows: of frames, and of their times
      # @return [Array(Integer, String)] see .read
      def take(count, bytes, due, block)
        done, theirs = 0, false
        yield(lambda do |outflow, times|
          lines = times.lines
          lines.next # a title
          while done < count && (data = outflow.read(bytes)) && data.bytesize == bytes
            raise Astray unless meant?(lines.next, due.call(done)) # which ends ffmpeg, that would write the others until somebody reads them

            theirs = true
            block.call(data)
            theirs = false
            done += 1
          end
        end)
        [done, nil]
      rescue Command::Failed => e
        raise if theirs

        [done, e.reason]
      rescue StopIteration, Astray
        [done, nil]
      end

      def meant?(told, due) = due.nil? || (Float(told) - due).abs <= TOLERANCE
    end
  end
end
