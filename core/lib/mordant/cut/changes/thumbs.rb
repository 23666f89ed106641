# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # The frames of a video, very small. Of a large video whose frames lean on each other those are decoded that others lean
      # on; the rest lie on a line between them.
      module Thumbs
        WIDTH = 48
        HEIGHT = 27
        SIZE = WIDTH * HEIGHT * 3 # bytes
        LARGE = 1_500_000 # pixels
        MOST_GAP = 6 # frames between two that are decoded; of what has larger ones all are
        SCALE = "scale=#{WIDTH}:#{HEIGHT}:flags=area"
        TOLERANCE = 1.5 # ms

        module_function

        # @param path [String]
        # @yieldparam thumb [Numo::UInt8] [SIZE] red, green, blue, pixel by pixel
        # @yieldparam known [Boolean] it was decoded
        # @raise [MediaError]
        def each(path)
          probe = Media::Probe.new(path)
          facts = probe.facts
          large = facts.width * facts.height >= LARGE && probe.index.seekable? && !probe.index.intra?
          done = large ? sparse(path, probe.index) { |thumb, known| yield thumb, known } : 0
          whole(path, done) { |thumb, known| yield thumb, known } if done
        end

        # @param from [Integer] the first frame that is wanted
        def whole(path, from)
          number = -1
          decode(path, [], ["-fps_mode", "passthrough", "-vf", SCALE, "-pix_fmt", "rgb24", "-f", "rawvideo", "pipe:1"]) do |outflow, _|
            while (bytes = outflow.read(SIZE)) && bytes.bytesize == SIZE
              yield Numo::UInt8.from_binary(bytes), true if (number += 1) >= from
            end
          end
        end

        # @return [Integer, nil] nil: all frames have been given; else how many, before a gap that is too large
        def sparse(path, index, &block)
          times = index.times.map { |time| time * index.time_base * 1000.0 }
          number, thumb = -1, nil
          decode(path, ["-skip_frame", "bidir"], ["-fps_mode", "passthrough", "-vf", "#{SCALE},format=rgb24", *Media::TimedPipe::OUTPUT], beside: true) do |outflow, told|
            lines = told.lines
            lines.next # a title
            while (bytes = outflow.read(SIZE)) && bytes.bytesize == SIZE
              place = place(times, Float(lines.next))
              return number + 1 unless place && place > number && place - number <= MOST_GAP

              after = Numo::UInt8.from_binary(bytes)
              between(thumb || after, after, place - number, &block)
              number, thumb = place, after
            end
          end
          return number + 1 if thumb.nil? || times.size - number > MOST_GAP

          (times.size - 1 - number).times { block.call(thumb, false) }
          nil
        end

        # The frames after one up to another.
        def between(before, after, steps)
          (1...steps).each { |step| yield Numo::UInt8.cast((Numo::SFloat.cast(before) * (steps - step) + Numo::SFloat.cast(after) * step) / steps + 0.5), false }
          yield after, true
        end

        # @return [Integer, nil] number of the frame at a time
        def place(times, told)
          at = times.bsearch_index { |time| time >= told - TOLERANCE }
          at if at && times[at] <= told + TOLERANCE
        end

        def decode(path, input, output, beside: false, &block)
          arguments = ["ffmpeg", "-v", "error", "-nostdin", "-threads", "1", "-skip_loop_filter", "all", *input, *Media::Command::LIMITS, "-i", "file:#{path}", "-map", "0:V:0", "-an", *output]
          Media::Command.stream(arguments, path:, beside:, &block)
        end
      end
    end
  end
end
