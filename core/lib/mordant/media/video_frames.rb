# frozen_string_literal: true

module Mordant
  module Media
    # The frames of a video by their number: decoding begins at a keyframe before them, and
    # frames are known by their presentation time, which comes out beside each.
    class VideoFrames
      # Frames come on one pipe, their times on another, a line each before its frame.
      TIMED = ["-copyts", "-enc_time_base", "-1", "-c:v", "rawvideo", "-f", "tee", "[f=mkvtimestamp_v2:flush_packets=1]pipe\\:3|[f=rawvideo]pipe\\:1"].freeze
      TOLERANCE = 1 # ms, to which times are told

      # @param path [String]
      # @param index [FrameIndex]
      # @raise [MediaError]
      def initialize(path, index:)
        @path = path
        @index = (index.stamp == FrameIndex.stamp(path)) ? index : FrameIndex.of(path)
      end

      def size = @index.size

      # @param first [Integer]
      # @param count [Integer]
      # @param filter [String] to planes
      # @param bytes [Integer] of a frame
      # @yieldparam data [String]
      # @raise [MediaError] of a frame that cannot be decoded, naming it
      def each(first:, count:, filter:, bytes:, &block)
        at, back = first, 0
        while at < first + count
          done = read(at, first + count - at, filter, bytes, back, &block)
          raise undecodable(at) if done.zero? && @index.begin_at(at, back:).nil?

          # what a decoder lacks after a short run-up it may have after a longer one
          at, back = at + done, done.zero? ? 2 * back + 1 : 0
        end
      end

      # @param first [Integer]
      # @param back [Integer] see FrameIndex#begin_at
      # @return [Array(Array<String>, String)] arguments that open it, and the filter that leaves
      #   out what is before
      def opening(first, back: 0)
        from = @index.begin_at(first, back:)
        seek = from ? ["-noaccurate_seek", "-seek_timestamp", "1", "-ss", format("%.6f", from)] : []
        trim = @index.seekable? ? "trim=start_pts=#{@index.times[first]}" : "select=gte(n\\,#{first})"
        [[*Command::LIMITS, *seek, "-i", "file:#{@path}"], trim]
      end

      private

      # @return [Integer] frames in a row that came as they should
      def read(first, count, filter, bytes, back)
        done, theirs = 0, false
        decode(first, count, filter, back) do |outflow, lines|
          while done < count && (data = outflow.read(bytes)) && data.bytesize == bytes && meant?(lines.next, first + done)
            theirs = true
            yield data
            theirs = false
            done += 1
          end
        end
        done
      rescue Command::Failed => e
        raise if theirs

        @complaint = e.reason # of frames before those wanted it does not matter
        done
      rescue StopIteration
        done
      end

      def decode(first, count, filter, back)
        input, trim = opening(first, back:)
        arguments = ["ffmpeg", "-v", "error", "-nostdin", "-xerror", *input, "-map", "0:V:0", "-frames:v", count.to_s, "-an", "-fps_mode", "passthrough",
          "-vf", "#{trim},#{filter}", *TIMED]
        Command.stream(arguments, path: @path, beside: true) do |outflow, times|
          lines = times.lines
          lines.next # a title
          yield outflow, lines
        end
      end

      def meant?(told, number) = !@index.seekable? || (Float(told) - @index.seconds(number) * 1000).abs <= TOLERANCE

      def undecodable(number) = MediaError.new(@path, "frame #{number} cannot be decoded#{" (#{@complaint})" if @complaint}; copy the file again, or take other frames")
    end
  end
end
