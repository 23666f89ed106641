# frozen_string_literal: true

require "tempfile"

# Noise taken from a shot whose profile has been measured, beside ffmpeg's nlmeans on the same frame.
module Bench
  module Noise
    LOOPS = 6 # frames ffmpeg is timed over

    module_function

    # Frames of one scene, each with noise of its own.
    def frames(count, width: 960, height: 540)
      still = Exact.codes(width, height).rgb
      Numo::NArray.srand(3)
      Array.new(count) do
        codes = Numo::SFloat.cast(still) + Numo::SFloat.new(*still.shape).rand_norm * 500
        Mordant::Media::Codes.new(Numo::UInt16.cast(codes.clip(0, 65_535)), width:, height:)
      end
    end

    def measured(frame)
      rgb = plan({}).run(frame).rgb
      Mordant::Noise::Estimate.profile([[Mordant::Noise.turned(rgb), Mordant::Grade::Window.whole(960, 540)]]).rows
    end

    def plan(parameters) = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => [{"id" => "n", "kind" => "noise", "parameters" => parameters.transform_keys(&:to_s)}]), source: "acescct")

    def ours(runs: 5, **parameters)
      count = 2 * parameters.fetch(:frames, 0) + 1
      list = frames(count)
      made = plan({luma: 1.0, colour: 1.0, profile: measured(list[count / 2]), **parameters})
      Bench.milliseconds(runs) { made.run(list[count / 2], around: ->(away) { list[count / 2 + away] if away.abs <= count / 2 }) }
    end

    # Of a UHD frame, fine, with two frames before and two after.
    def peak
      Exact.peak_rss do
        list = frames(3, width: 3840, height: 2160)
        plan({luma: 1.0, colour: 1.0, method: "fine", frames: 2}).run(list[0], around: ->(away) { list[away.abs] })
      end
    end

    # Milliseconds a frame on one thread, what reading it costs taken off.
    def nlmeans
      frame = frames(1).first
      Tempfile.create(["frame", ".rgb"]) do |raw|
        raw.binmode.write(Numo::UInt8.cast(frame.rgb >> 8).transpose.dup.to_binary)
        raw.flush
        with, without = [",nlmeans=s=2:p=5:r=11", ""].map { |filter| Bench.median(Bench.milliseconds(3) { ffmpeg(raw.path, filter) }) }
        (with - without) / LOOPS
      end
    end

    def ffmpeg(path, filter)
      input = ["-stream_loop", LOOPS.to_s, "-f", "rawvideo", "-pix_fmt", "rgb24", "-s", "960x540", "-i", path]
      system("ffmpeg", "-v", "error", "-nostdin", "-threads", "1", "-filter_threads", "1", *input, "-frames:v", LOOPS.to_s, "-vf", "format=yuv444p#{filter}", "-f", "null", "-") || raise("ffmpeg failed")
    end
  end

  figure("noise_fast_960x540_ms", "ms", "Noise, fast, of one frame with a measured profile") { Noise.ours }
  figure("noise_temporal_960x540_ms", "ms", "the same with two frames before and two after") { Noise.ours(frames: 2) }
  figure("noise_fine_960x540_ms", "ms", "Noise, fine, of one frame") { Noise.ours(runs: 3, method: "fine") }
  figure("noise_uhd_peak_rss_mb", "MB", "peak memory of the same of a 3840x2160 frame with two before and two after", alone: true) { [Noise.peak] }
  figure("noise_fast_vs_nlmeans", "times", "over ffmpeg's nlmeans on the same frame, one thread") do
    rival = Noise.nlmeans
    Noise.ours.map { |time| time / rival }
  end
end
