# frozen_string_literal: true

require "tmpdir"

# A bakeable shot through ffmpeg, beside a plain lut3d transcode of the same file.
module Bench
  module BulkRender
    WIDTH = 1280
    HEIGHT = 720
    FRAMES = 72
    RATE = Rational(24)

    module_function

    # Footage of moving gradients with grain, as a display-referred programme, every frame by itself.
    def footage(folder)
      path = File.join(folder, "programme.mkv")
      source = "gradients=s=#{WIDTH}x#{HEIGHT}:r=#{RATE}:n=6:seed=5:speed=0.02,noise=alls=2:allf=t"
      run("-f", "lavfi", "-i", source, "-frames:v", FRAMES.to_s, "-c:v", "ffv1", "-g", "1", "-slices", "4", "-pix_fmt", "yuv422p10le", "-color_range", "tv", path)
      path
    end

    def run(*arguments) = system("ffmpeg", "-v", "error", "-y", "-nostdin", *arguments) || raise("ffmpeg failed")

    def source(path)
      space = Mordant::Colour::WorkingSpace.fetch("display")
      recipe = Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"contrast" => 1.08, "lift" => [0.02, 0, 0, 0], "gain" => [0.95, 1, 1, 1.01], "saturation" => 1.1}}])
      plan = Mordant::Grade::Plan.new(recipe:, source: "rec709-bt1886", space:)
      [Mordant::Deliver::Programme::Source.new(reader: Mordant::Media::Reader.new(path, rate: RATE, range: "legal"), plan:), Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD, space)]
    end

    # Everything an order does: looking at the shot, baking, rendering.
    def ours(path, target)
      source, output = source(path)
      bulk = Mordant::Deliver::Bulk.new(source:, output:, bits: 10, first: 0, count: FRAMES)
      raise "the shot does not fit: #{bulk.error} codes" unless bulk.fits?

      start = Mordant::Cut::Timecode.parse("01:00:00:00", RATE)
      sheet = Mordant::Deliver::Sheet.new({"format" => "h264", "view" => Mordant::Grade::View::STANDARD}, width: WIDTH, height: HEIGHT)
      writer = Mordant::Deliver::VideoWriter.new(sheet, path: target, rate: RATE, first: 0)
      writer.draw(bulk, 0...FRAMES, frame: 0)
      writer.seal(0, FRAMES)
      writer.finish(timecode: start)
    end

    def plain(path, cube, target)
      run("-i", path, "-vf", "zscale=min=709:rin=limited:m=gbr:r=full,format=gbrp16le,lut3d=file=#{cube}:interp=tetrahedral,zscale=min=gbr:rin=full:m=709:r=limited,format=yuv420p10le",
        "-c:v", "libx264", "-preset", "medium", "-crf", "14", target)
    end

    def ratio
      Dir.mktmpdir do |folder|
        path = footage(folder)
        cube = File.join(folder, "plain.cube")
        File.write(cube, "LUT_3D_SIZE 33\n#{Exact.lattice(33).join}")
        Array.new(2) do |round|
          times = [-> { plain(path, cube, "#{folder}/plain#{round}.mp4") }, -> { ours(path, "#{folder}/ours#{round}.mp4") }].map do |work|
            started = Process.clock_gettime(Process::CLOCK_MONOTONIC)
            work.call
            Process.clock_gettime(Process::CLOCK_MONOTONIC) - started
          end
          times[0] / times[1]
        end
      end
    end
  end

  figure("bulk_vs_lut3d", "times", "speed of a bakeable shot over a plain ffmpeg lut3d transcode of the same file", more: true) { BulkRender.ratio }
end
