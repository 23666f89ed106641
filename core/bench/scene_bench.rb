# frozen_string_literal: true

require "tmpdir"

# Camera footage through the rendering, all of it made exactly: beside a plain lut3d transcode, and what a UHD frame costs.
module Bench
  module Scene
    WIDTH, HEIGHT = 1280, 720
    FRAMES = 60
    UHD = [3840, 2160, 24].freeze # width, height, frames
    DEMO = File.expand_path("../../demo/media/heron/H014/H014_1A.mov", __dir__) # with a camera's noise

    module_function

    # A shot of the demo at another size.
    def enlarged(folder, width, height, count)
      File.join(folder, "enlarged.mkv").tap do |path|
        BulkRender.run("-i", DEMO, "-vf", "scale=#{width}:#{height}:flags=lanczos", "-frames:v", count.to_s, "-c:v", "libx264", "-preset", "veryfast", "-crf", "16", "-pix_fmt", "yuv422p10le", path)
      end
    end

    # The same log footage, decoded and encoded to 10-bit 4:2:2 by both.
    def ratio
      Dir.mktmpdir do |folder|
        path = enlarged(folder, WIDTH, HEIGHT, FRAMES)
        cube = File.join(folder, "plain.cube")
        File.write(cube, "LUT_3D_SIZE 33\n#{Exact.lattice(33).join}")
        Array.new(3) do |round|
          plain = Deliveries.seconds { plain(path, cube, "#{folder}/plain#{round}.mov") }
          programme = Deliveries.programme_of(path, WIDTH, HEIGHT, FRAMES)
          ours = Deliveries.seconds { Deliveries.deliver(programme, [Deliveries.writer(folder, "vc3-mov", Mordant::Grade::View::STANDARD, WIDTH, HEIGHT)], FRAMES) }
          plain / ours
        end
      end
    end

    def plain(path, cube, target)
      BulkRender.run("-threads", "1", "-filter_threads", "1", "-i", path, "-vf", "zscale=min=709:m=gbr:r=full,format=gbrp16le,lut3d=file=#{cube}:interp=tetrahedral,zscale=min=gbr:rin=full:m=709:r=limited,format=yuv422p10le",
        "-c:v", "dnxhd", "-profile:v", "dnxhr_hqx", target)
    end

    # CPU seconds a frame of a shot of the demo, decoders and encoders included.
    def filmed_cpu
      width, height, count = UHD
      Dir.mktmpdir do |folder|
        programme = Deliveries.programme_of(enlarged(folder, width, height, count), width, height, count)
        [Deliveries.cpu { Deliveries.deliver(programme, [Deliveries.writer(folder, "h264", Mordant::Grade::View::STANDARD, width, height)], count) } / count]
      end
    end

    # The same of gradients without grain.
    def exact_cpu(format, view, count: 6)
      width, height, = UHD
      Dir.mktmpdir do |folder|
        programme = Deliveries.programme(folder, width, height, count)
        Array.new(2) { Deliveries.cpu { Deliveries.deliver(programme, [Deliveries.writer(folder, format, view, width, height)], count) } / count }
      end
    end
  end

  figure("bulk_scene_vs_lut3d", "times", "speed of a log clip with a grade and the SDR rendering, to 10-bit 4:2:2, over a plain ffmpeg lut3d transcode of it on one core", more: true) { Scene.ratio }
  figure("uhd_h264_filmed_cpu_s", "s", "CPU time of a UHD frame of log footage with a camera's noise to H.264, of twenty-four, all told") { Scene.filmed_cpu }
  figure("uhd_h264_cpu_s", "s", "the same of gradients without noise, of six") { Scene.exact_cpu("h264", Mordant::Grade::View::STANDARD) }
  figure("uhd_exr_half_cpu_s", "s", "the same to half-float OpenEXR in scene light") { Scene.exact_cpu("exr-half", Mordant::Grade::View::MASTER) }
end
