# frozen_string_literal: true

require "tmpdir"

# Orders: several outputs from one pass beside as many passes, and memory over the length.
module Bench
  module Deliveries
    RATE = Rational(24)
    FRAMES_ENCODED = 16 # more than an encoder that looks few frames ahead holds
    OUTPUTS = [["exr-half", Mordant::Grade::View::MASTER], ["vc3-mov", Mordant::Grade::View::STANDARD], ["h264", Mordant::Grade::View::STANDARD]].freeze
    PART = 24 # frames
    BALANCE = [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 0.3, "contrast" => 1.1, "gain" => [1, 1.02, 1, 0.98], "saturation" => 1.1}}].freeze
    SOFTENED = [{"id" => "s", "kind" => "soften", "parameters" => {"luma" => 0.4, "size" => 0.05}, "matte" => {"contributors" => [{"id" => "c", "kind" => "ellipse", "parameters" => {}}], "refinements" => [{"id" => "r", "kind" => "edges", "parameters" => {"size" => 0.02}}]}}].freeze
    RECIPE = Mordant::Grade::Recipe.new("steps" => BALANCE)

    module_function

    # @param count [Integer] frames
    # @return [Mordant::Deliver::Programme] of a log shot with a graded recipe
    def programme(folder, width, height, count, recipe: RECIPE)
      path = File.join(folder, "shot.mkv")
      BulkRender.run("-f", "lavfi", "-i", "gradients=s=#{width}x#{height}:r=#{RATE}:n=6:seed=5:speed=0.02", "-frames:v", count.to_s, "-c:v", "ffv1", "-pix_fmt", "yuv422p10le", path) unless File.exist?(path)
      programme_of(path, width, height, count, recipe:)
    end

    def programme_of(path, width, height, count, recipe: RECIPE)
      source = Mordant::Deliver::Programme::Source.new(reader: Mordant::Media::Reader.new(path, rate: RATE), others: Hash.new { |all, key| all[key] = Mordant::Deliver::Programme::Source.new(plan: Mordant::Grade::Plan.new(recipe:, source: "logc3-ei800-wg3")) })
      source.others[[true, 1.0, true]]
      shot = Mordant::Cut::Timeline::Shot.new(key: 1, source_in: 0, record_in: 0, length: count, dissolve: 0, clip_frames: count)
      Mordant::Deliver::Programme.new(timeline: Mordant::Cut::Timeline.new([shot]), sources: {1 => source}, width:, height:)
    end

    def writer(folder, format, view, width, height)
      sheet = Mordant::Deliver::Sheet.new({"format" => format, "view" => view}, width:, height:)
      path = File.join(folder, "#{format}_#{rand(1 << 40)}#{sheet.format.extension}")
      return Mordant::Deliver::SequenceWriter.new(sheet, path:, start:, first: 0) if sheet.format.sequence?

      Mordant::Deliver::VideoWriter.new(sheet, path:, rate: RATE, first: 0)
    end

    def start = Mordant::Cut::Timecode.parse("01:00:00:00", RATE)

    # All an order does of its outputs, checks left out.
    def deliver(programme, writers, count)
      describe = ->(frame) { [Mordant::Media::FrameFacts.new(rate: RATE, timecode: start + frame, name: "x", number: frame, count:), {}] }
      (0...count).each_slice(PART) do |frames|
        Mordant::Deliver::Pass.new(programme:, space: Mordant::Colour::WorkingSpace.default, writers: writers.each_with_index.to_h { |one, at| [at, one] }, describe:).run(first: frames.first, count: frames.size)
        writers.map { |one| Thread.new { one.seal(frames.first, frames.size) } }.each(&:join)
      end
      # workers end the outputs of an order side by side
      writers.map { |one| Thread.new { one.finish(timecode: start) } }.each(&:join)
    end

    def seconds
      started = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      yield
      Process.clock_gettime(Process::CLOCK_MONOTONIC) - started
    end

    # Memory of the programs that are started meanwhile, each at most.
    def children_mb
      most = 0.0
      watching = Thread.new do
        loop do
          most = [most, *Dir["/proc/self/task/*/children"].flat_map { |list| File.read(list).split }.map { |id| held_mb(id) }].max
          sleep 0.05
        end
      end
      yield
      most
    ensure
      watching.kill
    end

    def held_mb(id)
      File.read("/proc/#{id}/status")[/VmHWM:\s+(\d+)/, 1].to_i / 1024.0
    rescue Errno::ENOENT, Errno::ESRCH
      0.0 # it has ended meanwhile
    end

    # Memory of ffmpeg at most while it encodes the whole of a large one.
    def encoding_mb(format, encoding)
      Dir.mktmpdir do |folder|
        writer = writer(folder, format, Mordant::Grade::View.new(encoding:), 3840, 2160)
        writer.open
        FRAMES_ENCODED.times { |record| File.binwrite(File.join(writer.folder, format("g%08d", record)), Numo::UInt16.new(3, 3840 * 2160).rand(60_000).to_binary) }
        writer.seal(0, FRAMES_ENCODED)
        children_mb { writer.finish(timecode: start) }
      end
    end

    # CPU seconds of a run, ffmpeg's included.
    def cpu
      before = Process.times.to_a.sum
      yield
      Process.times.to_a.sum - before
    end

    def together_and_apart(width: 640, height: 360, count: 12)
      Dir.mktmpdir do |folder|
        Array.new(3) do
          made = programme(folder, width, height, count)
          together = seconds { deliver(made, OUTPUTS.map { |format, view| writer(folder, format, view, width, height) }, count) }
          apart = OUTPUTS.sum { |format, view| seconds { deliver(programme(folder, width, height, count), [writer(folder, format, view, width, height)], count) } }
          together / apart
        end
      end
    end

    # Memory of a process that makes frames of 3840x2160, without the programs it starts.
    def uhd_peak(steps, count: 4)
      recipe = Mordant::Grade::Recipe.new("steps" => steps)
      Dir.mktmpdir do |folder|
        made = programme(folder, 3840, 2160, count, recipe:)
        Exact.peak_rss { deliver(made, [writer(folder, *OUTPUTS.first, 3840, 2160)], count) }
      end
    end

    def peak(count, width: 256, height: 144)
      Dir.mktmpdir do |folder|
        programme(folder, width, height, count)
        Exact.peak_rss { deliver(programme(folder, width, height, count), OUTPUTS.map { |format, view| writer(folder, format, view, width, height) }, count) }
      end
    end
  end

  {"h264" => "rec709-bt1886", "hdr10" => "rec2100-pq", "av1" => "rec709-bt1886"}.each do |format, encoding|
    figure("uhd_#{format}_encoder_mb", "MB", "memory of ffmpeg at most, encoding the whole of a 3840x2160 #{Mordant::Deliver::Format.fetch(format).label}", alone: true) { [Deliveries.encoding_mb(format, encoding)] }
  end
  {"balance" => ["a Balance", -> { Deliveries::BALANCE }], "soften" => ["a Soften of 5 % within a soft matte", -> { Deliveries::SOFTENED }], "heavy" => ["that Soften and all film steps", -> { Deliveries::SOFTENED + Film::STEPS }]}.each do |name, (about, steps)|
    figure("deliver_uhd_#{name}_rss_mb", "MB", "peak memory of a process delivering 3840x2160 through #{about} to OpenEXR", alone: true) { [Deliveries.uhd_peak(steps.call)] }
  end
  figure("three_outputs_vs_singles", "times", "an order of three outputs in one pass over three single ones") { Deliveries.together_and_apart }
  [10, 1000].each do |count|
    figure("deliver_peak_rss_mb_#{count}", "MB", "peak memory of a process delivering #{count} frames in three formats", alone: true) { [Deliveries.peak(count)] }
  end
end
