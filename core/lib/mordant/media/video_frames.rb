# frozen_string_literal: true

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
        left, back = count, 0
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

      # @return [Integer] frames in a row that came as they should
      def read(first, count, filter, bytes, back, every, &)
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
