# frozen_string_literal: true

module Mordant
  module Cut
    module Changes
      # The frames of a video, very small. Of a large video whose frames lean on each other those alone that others lean on.
      module Thumbs
        WIDTH = 48
        HEIGHT = 27
        SIZE = WIDTH * HEIGHT * 3 # bytes
        LARGE = 900_000 # pixels
        MOST_GAP = 6 # frames between two that are decoded; of what has larger ones all are
        FINER = 10 # pixels of a row, of which one of a small picture is the mean; more are left out before
        TOLERANCE = 1.5 # ms

        module_function

        # @param path [String]
        # @param probe [Media::Probe] of it
        # @yieldparam thumb [Numo::UInt8] [SIZE] red, green, blue, pixel by pixel
        # @yieldparam frame [Integer] the frame that it is
        # @raise [MediaError]
        def each(path, probe, &)
          facts = probe.facts
          large = facts.width * facts.height >= LARGE && probe.index.seekable? && !probe.index.intra?
          done = large ? sparse(path, probe, &) : 0
          whole(path, probe, done, &) if done
        end

        # All frames of a stretch.
        #
        # @param reader [Media::Reader]
        # @return [Array<Numo::SFloat>] codes, as small
        def stretch(reader, first, count)
          [].tap { |thumbs| reader.each(first:, count:, width: WIDTH, height: HEIGHT) { |codes| thumbs << Numo::SFloat.cast(codes.rgb) } }
        end

        # @param from [Integer] the first frame that is wanted
        def whole(path, probe, from)
          frame = -1
          decode(path, [], ["-fps_mode", "passthrough", "-vf", scale(probe.facts), "-pix_fmt", "rgb24", "-f", "rawvideo", "pipe:1"]) do |outflow, _|
            while (bytes = outflow.read(SIZE)) && bytes.bytesize == SIZE
              yield Numo::UInt8.from_binary(bytes), frame if (frame += 1) >= from
            end
          end
        end

        # @return [Integer, nil] nil: it is at the end; else the frame that comes next, before a gap that is too large
        def sparse(path, probe)
          index = probe.index
          times = index.times.map { |time| time * index.time_base * 1000.0 }
          frame = -1
          decode(path, ["-skip_frame", "noref"], ["-fps_mode", "passthrough", "-vf", "#{scale(probe.facts)},format=rgb24", *Media::TimedPipe::OUTPUT], beside: true) do |outflow, told|
            lines = told.lines
            lines.next # a title
            while (bytes = outflow.read(SIZE)) && bytes.bytesize == SIZE
              place = place(times, Float(lines.next))
              return frame + 1 unless place && place > frame && place - frame <= MOST_GAP

              frame = place
              yield Numo::UInt8.from_binary(bytes), frame
            end
          end
          frame + 1 if times.size - frame > MOST_GAP
        end

        def scale(facts)
          every = facts.width / (WIDTH * FINER)
          [*("scale=iw/#{every}:ih/#{every}:flags=neighbor" if every > 1), "scale=#{WIDTH}:#{HEIGHT}:flags=area"].join(",")
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
