# frozen_string_literal: true

require "tempfile"

# The exact picture, the answer to a drag, and what they need in memory.
module Bench
  module Exact
    PARAMETERS = {"exposure" => 0.4, "contrast" => 1.1, "temperature" => 5.0, "tint" => -2.0, "saturation" => 1.1,
                  "lift" => [0.01, 0, 0, 0.004], "gamma" => [1.05, 1, 1, 0.98], "gain" => [1.02, 1, 1, 1], "offset" => [-0.01, 0, 0, 0]}.freeze
    LOOPS = 24 # frames ffmpeg is timed over

    module_function

    # Footage-like codes: smooth, with grain.
    def codes(width, height)
      Numo::NArray.srand(11)
      slope = (Numo::SFloat.new(1, width).seq / width).tile(height, 1).reshape(width * height)
      planes = [0.9, 0.8, 0.7].map { |gain| (slope * gain * 40_000 + 9_000 + Numo::SFloat.new(width * height).rand_norm * 400).clip(0, 65_535) }
      Mordant::Media::Codes.new(Numo::UInt16.cast(Numo::NArray.vstack(planes)), width:, height:)
    end

    # A new plan each time, as a changed recipe needs one.
    def plan(nudge)
      document = {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => PARAMETERS.merge("exposure" => 0.4 + nudge)}]}
      Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new(document), source: "logc3-ei800-wg3")
    end

    def output = Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD)

    def picture(codes, nudge: 0.0, plan: plan(nudge))
      working = plan.run(codes)
      [working, output.run(working)]
    end

    def times(width, height)
      source = codes(width, height)
      Bench.milliseconds { picture(source, nudge: rand / 100) }
    end

    # What a server process does for one move of a hand, JSON and database aside:
    # the look-up table the screen draws through, and the instruments.
    def drag
      source, screen = codes(960, 540), Mordant::Grade::Screen.new(view: Mordant::Grade::View::STANDARD)
      small = source.reduce(4)
      Bench.milliseconds(25) do
        ladder = Mordant::Grade::Ladder.new(groups: plan(rand / 100).recipe.strands, source: "logc3-ei800-wg3", screen:, domain: source.domain, smalls: [small])
        working = ladder.climbs.first.graded
        instruments = Mordant::Scopes::Instruments.new(Mordant::Scopes::Signal.new(screen.measured(working)))
        [ladder.rungs, Mordant::Scopes::ToneTrace.of(working).to_h, instruments.header, instruments.parts]
      end
    end

    # ffmpeg's tetrahedral lut3d on one thread, what reading the frame costs taken off.
    def lut3d(width, height)
      Tempfile.create(["frame", ".rgb"]) do |raw|
        Tempfile.create(["identity", ".cube"]) do |cube|
          raw.binmode.write(codes(width, height).rgb.transpose.to_binary)
          cube.write("LUT_3D_SIZE 33\n", *lattice(33))
          [raw, cube].each(&:flush)
          with, without = ["lut3d=file=#{cube.path}:interp=tetrahedral", "null"].map { |filter| Bench.median(Bench.milliseconds(5) { ffmpeg(raw.path, width, height, filter) }) }
          (with - without) / LOOPS
        end
      end
    end

    def lattice(size)
      steps = (0...size).map { |i| i / (size - 1.0) }
      steps.product(steps, steps).map { |b, g, r| "#{r} #{g} #{b}\n" }
    end

    def ffmpeg(path, width, height, filter)
      input = ["-stream_loop", LOOPS.to_s, "-f", "rawvideo", "-pix_fmt", "rgb48le", "-s", "#{width}x#{height}", "-i", path]
      system("ffmpeg", "-v", "error", "-nostdin", "-threads", "1", "-filter_threads", "1", *input, "-frames:v", LOOPS.to_s, "-vf", "format=gbrp16le,#{filter}", "-f", "null", "-") || raise("ffmpeg failed")
    end

    # Megabytes a process of its own needs at most for some work.
    def peak_rss
      reader, writer = IO.pipe
      child = fork do
        yield
        writer.write(File.read("/proc/self/status")[/VmHWM:\s+(\d+)/, 1])
        exit!(true)
      end
      writer.close
      _, status = Process.wait2(child)
      status.success? ? reader.read.to_i / 1024.0 : raise("the process that was measured failed")
    end
  end

  figure("exact_960x540_ms", "ms", "exact picture of a full Balance step, plan included") { Exact.times(960, 540) }
  figure("exact_1920x1080_ms", "ms", "the same at four times the raster") { Exact.times(1920, 1080) }
  figure("exact_1920x1080_vs_lut3d", "times", "over ffmpeg's lut3d filter alone, one thread") do
    rival = Exact.lut3d(1920, 1080)
    Exact.times(1920, 1080).map { |time| time / rival }
  end
  figure("drag_ms", "ms", "Ruby time of one answer to a drag, scopes included") { Exact.drag }
  figure("peak_rss_mb", "MB", "peak memory of a process making exact 1920x1080 pictures", alone: true) do
    Array.new(3) do
      Exact.peak_rss do
        source = Exact.codes(1920, 1080)
        4.times { Exact.picture(source) }
      end
    end
  end
end
