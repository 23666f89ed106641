# frozen_string_literal: true

# Every instrument on one picture, beside ffmpeg's own on the same codes.
module Bench
  module Scopes
    ALL = {"traces" => true, "vectorscope" => 1, "histogram" => true, "solid" => "lab"}.freeze
    # What ffmpeg has of them: a waveform of luma, a parade, a vectorscope and a histogram.
    FILTERS = "split=4[a][b][c][d];" \
      "[a]format=yuv444p10le,waveform=mode=column:components=1,nullsink;[b]format=gbrp10le,waveform=mode=column:display=parade:components=7,nullsink;" \
      "[c]format=yuv444p10le,vectorscope,nullsink;[d]format=gbrp10le,histogram,null[out]"

    module_function

    def measured = Exact.picture(Exact.codes(960, 540))[1]

    def ours(frame)
      Bench.milliseconds do
        instruments = Mordant::Scopes::Instruments.new(Mordant::Scopes::Signal.new(frame), ALL)
        [instruments.header, instruments.parts]
      end
    end

    # Milliseconds a frame on one thread, what reading it costs taken off.
    def ffmpeg(frame)
      Tempfile.create(["frame", ".rgb"]) do |raw|
        raw.binmode.write(Mordant::Media::Integers.interleave(frame, 16).to_binary)
        raw.flush
        with, without = [FILTERS, "null[out]"].map { |filter| Bench.median(Bench.milliseconds(5) { run(raw.path, filter) }) }
        (with - without) / Exact::LOOPS
      end
    end

    def run(path, filter)
      input = ["-stream_loop", Exact::LOOPS.to_s, "-f", "rawvideo", "-pix_fmt", "rgb48le", "-s", "960x540", "-i", path]
      system("ffmpeg", "-v", "error", "-nostdin", "-threads", "1", "-filter_threads", "1", "-filter_complex_threads", "1", *input, "-frames:v", Exact::LOOPS.to_s,
        "-filter_complex", "[0:v]#{filter}", "-map", "[out]", "-f", "null", "-") || raise("ffmpeg failed")
    end
  end

  figure("scopes_960x540_ms", "ms", "waveform, parade, vectorscope, histogram and solid of a 960x540 picture") { Scopes.ours(Scopes.measured) }
  figure("scopes_vs_ffmpeg", "times", "over ffmpeg's waveform, parade, vectorscope and histogram filters, one thread") do
    frame = Scopes.measured
    rival = Scopes.ffmpeg(frame)
    Scopes.ours(frame).map { |time| time / rival }
  end
end
