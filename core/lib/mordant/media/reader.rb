# frozen_string_literal: true

module Mordant
  module Media
    # Decodes stretches of a clip into Codes.
    #
    # Legal-range video is expanded to full range and YCbCr turned to RGB by the
    # matrix the file names, BT.709 where it names none.
    class Reader
      # @param path [String] a video, or a sequence in brackets
      # @param rate [Rational] frames a second
      # @param range [String, nil] "full" or "legal" to read it as; nil: as the file says
      def initialize(path, rate:, range: nil)
        @path, @rate, @range = path, rate, range
        @sequence = Sequence.parse(path)
      end

      # @param first [Integer] frame, from 0
      # @param count [Integer]
      # @param width [Integer] of the raster to deliver
      # @param height [Integer]
      # @yieldparam codes [Codes] each frame in turn
      # @return [Integer] frames delivered
      # @raise [MediaError] of a file that ends before the frames asked for, or cannot be decoded
      def each(first:, count:, width:, height:)
        bytes = width * height * 6
        done = 0
        Command.stream(arguments(first, count, width, height), path: @path) do |io|
          while done < count && (data = io.read(bytes))
            break if data.bytesize < bytes

            yield Codes.from_interleaved(data, width:, height:)
            done += 1
          end
        end
        return done if done == count

        raise MediaError.new(@path, "it ends at frame #{first + done}, #{count - done} short of what it promises; " \
                                    "copy it again or take fewer frames")
      end

      # @return [Codes] one frame
      def frame(number, width:, height:)
        found = nil
        each(first: number, count: 1, width:, height:) { |codes| found = codes }
        found
      end

      # @param first [Integer] frame, from 0
      # @return [Array(Array<String>, String)] arguments that open it there for ffmpeg, and
      #   the filter to full-range RGB of that raster
      def decoding(first:, width:, height:) = [input(first), scale(width, height)]

      private

      def arguments(first, count, width, height)
        ["ffmpeg", "-v", "error", "-nostdin", "-xerror", "-protocol_whitelist", "file,pipe", *input(first),
          "-map", "0:v:0", "-frames:v", count.to_s, "-an", "-fps_mode", "passthrough", "-vf", scale(width, height),
          "-f", "rawvideo", "-pix_fmt", "rgb48le", "pipe:1"]
      end

      def input(first)
        if @sequence
          return ["-f", "image2", "-framerate", @rate.to_s, "-start_number", (@sequence.first + first).to_s,
            "-i", "file:#{@sequence.pattern}"]
        end
        # A little early, so that rounding cannot skip the frame meant; MXF would round half a frame down.
        seek = [Rational(first) - Rational(1, 4), 0].max / @rate
        ["-ss", format("%.6f", seek), "-i", "file:#{@path}"]
      end

      def scale(width, height)
        range = {"full" => ":in_range=pc", "legal" => ":in_range=tv"}[@range]
        "scale=#{width}:#{height}:flags=area+accurate_rnd+full_chroma_int+full_chroma_inp#{range}:out_range=pc"
      end
    end
  end
end
