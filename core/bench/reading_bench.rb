# frozen_string_literal: true

# One frame of a clip of the demo, somewhere in it, beside ffmpeg alone.
module Bench
  module Reading
    CLIP = File.expand_path("../../demo/media/heron/H014/H014_1A.mov", __dir__)
    WIDTH = 960
    HEIGHT = 540
    FRAMES = [31, 8, 40, 17].freeze
    UNTIL_READY = 0.4 # seconds

    module_function

    # @return [Array<Float>] milliseconds for each frame, after one that is not counted
    def times
      [0, *FRAMES].map do |frame|
        sleep UNTIL_READY
        started = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        yield frame
        (Process.clock_gettime(Process::CLOCK_MONOTONIC) - started) * 1000
      end.drop(1)
    end

    def ready
      probe = Mordant::Media::Probe.new(CLIP)
      reader = Mordant::Media::Reader.new(CLIP, facts: probe.facts, index: probe.index)
      Mordant::Media::Waiting.keep(1)
      times { |frame| reader.frame(frame, width: WIDTH, height: HEIGHT) }
    ensure
      Mordant::Media::Waiting.stop
    end

    def alone = times { |frame| BulkRender.run("-ss", (frame / 24.0).to_s, "-i", CLIP, "-frames:v", "1", "-pix_fmt", "gbrp16le", "-f", "rawvideo", File::NULL) }

    def beside = ready.zip(alone).map { |ours, theirs| ours / theirs }
  end

  figure("first_frame", "ms", "until a frame somewhere in a clip is there, by an ffmpeg that waits ready") { Reading.ready }
  figure("first_frame_vs_ffmpeg", "times", "the same over ffmpeg's own time for it") { Reading.beside }
end
