# frozen_string_literal: true

require "tmpdir"

module Mordant
  module Media
    # The frames of a video by their number: decoding begins at a keyframe before them, and
    # frames are known by their presentation time, which comes out beside each.
    class VideoFrames
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
      # @param every [Integer] frames from one that comes to the next
      # @yieldparam data [String]
      # @raise [MediaError] of a frame that cannot be decoded, naming it
      def each(first:, count:, filter:, bytes:, every: 1, &block)
        left, back = count - ((every > 1 && @index.apart?) ? picked(first, count, every, filter, bytes, &block) : 0), 0
        while left.positive?
          at = first + (count - left) * every
          done = read(at, left, filter, bytes, back, every, &block)
          raise undecodable(at) if done.zero? && @index.begin_at(at, back:).nil?

          # what a decoder lacks after a short run-up it may have after a longer one
          left, back = left - done, done.zero? ? 2 * back + 1 : 0
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

      # By an ffmpeg that waits, where one does.
      #
      # @return [Integer] frames in a row that came as they should
      def waiting(first, count, filter, bytes, &)
        key = @index.seconds(@index.key_of(first))
        earliest = first.zero? ? 0 : ((@index.times[first - 1] + @index.times[first]) / 2 - key / @index.time_base).ceil
        Waiting.lend(@path) do |one|
          one.read(@path, from: key, filter: "trim=start_pts=#{earliest},#{filter}", count:, bytes:, due: ->(step) { (@index.seconds(first + step) - key) * 1000 }, &)
        end
      end

      # Of frames that are coded by themselves those between need not be decoded: a list names a place in the file for each
      # that is wanted, from a quarter of a frame after its time on, which seeks land on. Their times begin anew with each, and are not looked at.
      #
      # @return [Integer] frames that came
      def picked(first, count, every, filter, bytes)
        done = 0
        Dir.mktmpdir("mordant") do |folder|
          list = File.join(folder, "frames.ffconcat")
          File.write(list, list(Array.new(count) { |step| first + step * every }))
          command = ["ffmpeg", "-v", "error", "-nostdin", "-protocol_whitelist", "file,pipe", "-f", "concat", "-safe", "0", "-i", list, "-map", "0:V:0", "-frames:v", count.to_s, "-an", "-fps_mode", "passthrough", "-vf", "#{filter},setpts=N", "-f", "rawvideo", "pipe:1"]
          Command.stream(command, path: @path) do |outflow|
            while done < count && (data = outflow.read(bytes)) && data.bytesize == bytes
              yield data
              done += 1
            end
          end
        end
        done
      rescue Command::Failed
        done # the way through all frames tells what is wrong with it
      end

      def list(numbers)
        frame = 1 / @index.rate
        name = Command.listed(@path)
        lines = numbers.map { |number| format("file %<name>s\ninpoint %<from>.6f\noutpoint %<to>.6f\n", name:, from: @index.seconds(number) - @index.seconds(0) + frame / 4, to: @index.seconds(number) - @index.seconds(0) + frame * 3 / 4) }
        "ffconcat version 1.0\n#{lines.join}"
      end

      # @return [Integer] frames in a row that came as they should
      def read(first, count, filter, bytes, back, every, &)
        done = (back.zero? && every == 1 && @index.direct?) ? waiting(first, count, filter, bytes, &) : 0
        return done if done.positive?

        input, trim = opening(first, back:)
        trim += ",select=not(mod(n\\,#{every}))" if every > 1
        due = ->(step) { @index.seconds(first + step * every) * 1000 if @index.seekable? }
        # what is complained of may be of frames before those wanted
        done, @complaint = TimedPipe.read(input, filter: "#{trim},#{filter}", count:, bytes:, path: @path, strict: true, due:, &)
        done
      end

      def undecodable(number) = MediaError.new(@path, "frame #{number} cannot be decoded#{" (#{@complaint})" if @complaint}; copy the file again, or take other frames")
    end
  end
end
