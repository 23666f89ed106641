# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # The frames of a video, very small.
      module Thumbs
        WIDTH = 48
        HEIGHT = 27
        SIZE = WIDTH * HEIGHT * 3 # bytes

        module_function

        # @param path [String]
        # @yieldparam thumb [Numo::UInt8] [SIZE] red, green, blue, pixel by pixel
        # @raise [MediaError]
        def each(path)
          arguments = ["ffmpeg", "-v", "error", "-nostdin", "-threads", "1", "-skip_loop_filter", "all", *Media::Command::LIMITS, "-i", "file:#{path}", "-map", "0:v:0", "-fps_mode", "passthrough",
            "-vf", "scale=#{WIDTH}:#{HEIGHT}:flags=area", "-pix_fmt", "rgb24", "-f", "rawvideo", "pipe:1"]
          Media::Command.stream(arguments, path:) do |outflow|
            while (bytes = outflow.read(SIZE))
              break if bytes.bytesize < SIZE

              yield Numo::UInt8.from_binary(bytes)
            end
          end
        end
      end
    end
  end
end
