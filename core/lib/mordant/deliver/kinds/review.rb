# frozen_string_literal: true

require "fileutils"

module Mordant
  module Deliver
    module Kinds
      # A review copy: H.264, BT.709 gamma 2.4, legal range unless the job says full, tagged
      # as such.
      class Review < Kind
        named "review-h264", "Review copy, H.264", extension: ".mp4", view: Grade::View::STANDARD, bits: 10,
          about: "BT.709, gamma 2.4, 10 bit 4:2:0"

        TAGS = %w[-color_primaries bt709 -color_trc bt709 -colorspace bt709].freeze
        QUALITY = "14" # constant rate factor

        def initialize(job)
          super
          FileUtils.mkdir_p(File.dirname(job.path))
          @partial = File.join(File.dirname(job.path), ".#{File.basename(job.path)}.part")
          @feeder = nil
        end

        def write(frame, _index)
          start unless @feeder
          # raises what the encoder died of
          @feeder.value unless @feeder.alive?
          @handover << Media::Integers.interleave(frame, 16).to_binary
        end

        # Seconds a frame may take in bulk, and to start.
        PATIENCE = 10
        START = 60

        # All frames in one go, without passing through here.
        #
        # @param bulk [Bulk]
        # @param count [Integer] frames
        # @yieldparam done [Integer] frames written
        # @raise [MediaError]
        def bulk(bulk, count)
          done = 0
          bulk.open(width: job.width, height: job.height) do |input, filters|
            Media::Command.stream(bulk_arguments(input, filters, count), path: job.path, limit: START + PATIENCE * count) do |io|
              io.each_line { |line| yield done = $1.to_i if line =~ /\Aframe=\s*(\d+)/ }
            end
          end
          raise MediaError.new(job.path, "the source ends #{count - done} frames early; copy it again or take fewer frames") if done < count

          @bulk = true
        end

        # @raise [MediaError] when the encoder failed
        def close
          finish unless @bulk
          File.link(@partial, job.path) # unlike a rename, refuses to overwrite
          File.unlink(@partial)
        end

        def abandon
          @feeder&.kill&.join
          FileUtils.rm_f(@partial)
        end

        private

        def finish
          start unless @feeder
          @handover << nil if @feeder.alive?
          @feeder.value
        end

        def start
          @handover = SizedQueue.new(2)
          @feeder = Thread.new do
            Media::Command.feed(arguments, path: job.path) do |io|
              while (bytes = @handover.pop)
                io.write(bytes)
              end
            end
          ensure
            @handover.close
          end
          @feeder.report_on_exception = false
        end

        def arguments
          ["ffmpeg", "-v", "error", "-y", "-protocol_whitelist", "file,pipe", "-f", "rawvideo", "-pix_fmt", "rgb48le",
            "-s", "#{job.width}x#{job.height}", "-framerate", job.rate.to_s, "-i", "pipe:0", "-vf", filter, *encoder]
        end

        # Frames are timed by their number: a source may say another rate.
        def bulk_arguments(input, filters, count)
          timing = "settb=#{job.rate.denominator}/#{job.rate.numerator},setpts=N"
          ["ffmpeg", "-v", "error", "-y", "-nostdin", "-xerror", "-protocol_whitelist", "file,pipe", "-progress", "pipe:1", *input, "-map", "0:v:0",
            "-frames:v", count.to_s, "-an", "-fps_mode", "cfr", "-r", job.rate.to_s, "-vf", "#{filters},#{filter},#{timing}", *encoder]
        end

        def encoder
          ["-c:v", "libx264", "-preset", "medium", "-crf", QUALITY, *TAGS, "-color_range", range, "-timecode", job.start.to_s,
            "-movflags", "+faststart", "-f", "mp4", "file:#{@partial}"]
        end

        def range = (job.range == Colour::SignalRange::FULL) ? "pc" : "tv"

        # 4:2:0 wants even edges; an odd last row or column is repeated.
        def filter
          "pad=ceil(iw/2)*2:ceil(ih/2)*2:color=black," \
            "scale=out_color_matrix=bt709:out_range=#{range}:flags=bicubic+accurate_rnd+full_chroma_int+full_chroma_inp," \
            "format=yuv420p10le"
        end
      end
    end
  end
end
