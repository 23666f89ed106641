# frozen_string_literal: true

require "tmpdir"

# An HDR picture brought to a screen of 100 cd/m2, and what is measured for it.
module Bench
  module Rendition
    SECONDS = 10
    HDR = Mordant::Grade::View.new(encoding: "rec2100-pq", rendering: "hdr-video-1000nit-15nit-p3lim-1.1")

    module_function

    def output(**corrected)
      view = Mordant::Grade::View.from({"encoding" => "rec709-bt1886", "rendition" => {"peak" => 100, "of" => HDR.document}})
      levels = Mordant::Rendition::Levels.new(least: 0.005, mean: 12.0, greatest: 780.0, reach: {"bt709" => [1.24, 1.04, 1.07], "p3-d65" => [1.02, 1.0, 1.0]})
      Mordant::Grade::Output.for(view.bound([Mordant::Rendition::Mapping.new(levels:, one: Mordant::Rendition::ForTarget.new(corrected))]))
    end

    def working = @working ||= Exact.plan(0.0).run(Exact.codes(960, 540))

    # As a hand on a correction moves: another mapping each time, as a lattice.
    def drag
      plan = Exact.plan(0.0)
      nudge = 1.0
      Bench.milliseconds { Mordant::Grade::Bake.new(plan:, output: output(contrast: nudge += 0.001), size: 33).samples }
    end

    # Seconds of a clip over seconds of work, on one core.
    def statistics
      Dir.mktmpdir do |folder|
        path = File.join(folder, "clip.mkv")
        system("ffmpeg", "-v", "error", "-f", "lavfi", "-i", "testsrc2=s=960x540:r=24:d=#{SECONDS}", "-vf", "format=gbrp10le", "-c:v", "ffvhuff", path) || raise("ffmpeg failed")
        3.times.map { SECONDS / alone(path) }
      end
    end

    # In a process that is held to one core, which ffmpeg inherits.
    def alone(path)
      reader, writer = IO.pipe
      pid = fork do
        system("taskset", "-p", "-c", "0", Process.pid.to_s, out: File::NULL)
        survey(path).call { nil }
        started = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        survey(path).call { nil }
        writer.write((Process.clock_gettime(Process::CLOCK_MONOTONIC) - started).to_s)
        exit!(0)
      end
      writer.close
      Float(reader.read).tap { Process.wait(pid) }
    end

    def survey(path)
      frames = SECONDS * 24
      place = Mordant::Cut::Timeline::Shot.new(key: 1, name: "x", clip: 1, source_in: 0, record_in: 0, length: frames, dissolve: 0, clip_frames: frames, speed: 1.0, phase: 0.0, wipe: nil, clock: 0, manner: {})
      source = Mordant::Deliver::Programme::Source.new(reader: Mordant::Media::Reader.new(path), plan: Exact.plan(0.0))
      Mordant::Rendition::Survey.new(source:, output: Mordant::Grade::Output.for(HDR), place:, width: 960, height: 540, rate: Rational(24), simple: true)
    end
  end

  figure("rendition_960x540_ms", "ms", "an HDR picture's rendition, mapped and corrected") { Rendition.output(contrast: 1.1).then { |output| Bench.milliseconds { output.run(Rendition.working) } } }
  figure("rendition_vs_hdr", "times", "over the HDR picture itself") do
    hdr = Bench.median(Bench.milliseconds { Mordant::Grade::Output.for(Rendition::HDR).run(Rendition.working) })
    output = Rendition.output(contrast: 1.1)
    Bench.milliseconds { output.run(Rendition.working) }.map { |time| time / hdr }
  end
  figure("rendition_drag_ms", "ms", "one move of a correction as a lattice of 33") { Rendition.drag }
  figure("statistics_960x540_real_time", "times", "levels measured, over real time, on one core", more: true) { Rendition.statistics }
end
