# frozen_string_literal: true

require "tmpdir"

# Camera footage through the rendering, which no lattice holds: beside a plain lut3d transcode, and what a UHD frame costs.
module Bench
  module Scene
    WIDTH, HEIGHT = 1280, 720
    FRAMES = 24
    UHD = [3840, 2160, 6].freeze # width, height, frames

    module_function

    # The same log footage, decoded and encoded to 10-bit 4:2:2 by both.
    def ratio
      Dir.mktmpdir do |folder|
        programme = Deliveries.programme(folder, WIDTH, HEIGHT, FRAMES)
        cube = File.join(folder, "plain.cube")
        File.write(cube, "LUT_3D_SIZE 33\n#{Exact.lattice(33).join}")
        Array.new(3) do |round|
          plain = Deliveries.seconds { plain("#{folder}/shot.mkv", cube, "#{folder}/plain#{round}.mov") }
          ours = Deliveries.seconds { Deliveries.deliver(programme, [Deliveries.writer(folder, "vc3-mov", Mordant::Grade::View::STANDARD, WIDTH, HEIGHT)], FRAMES) }
          plain / ours
        end
      end
    end

    def plain(path, cube, target)
      BulkRender.run("-threads", "1", "-filter_threads", "1", "-i", path, "-vf", "zscale=min=709:m=gbr:r=full,format=gbrp16le,lut3d=file=#{cube}:interp=tetrahedral,zscale=min=gbr:rin=full:m=709:r=limited,format=yuv422p10le",
        "-c:v", "dnxhd", "-profile:v", "dnxhr_hqx", target)
    end

    # CPU seconds a frame, decoders and encoders included.
    def cpu(format, view)
      width, height, count = UHD
      Dir.mktmpdir do |folder|
        programme = Deliveries.programme(folder, width, height, count)
        Array.new(2) do
          before = Process.times.to_a.sum
          Deliveries.deliver(programme, [Deliveries.writer(folder, format, view, width, height)], count)
          (Process.times.to_a.sum - before) / count
        end
      end
    end
  end

  figure("bulk_scene_vs_lut3d", "times", "speed of a log clip with a grade and the SDR rendering, to 10-bit 4:2:2, over a plain ffmpeg lut3d transcode of it on one core", more: true) { Scene.ratio }
  figure("uhd_h264_cpu_s", "s", "CPU time of a UHD frame of log footage to H.264, all told") { Scene.cpu("h264", Mordant::Grade::View::STANDARD) }
  figure("uhd_exr_half_cpu_s", "s", "the same to half-float OpenEXR in scene light") { Scene.cpu("exr-half", Mordant::Grade::View::MASTER) }
end
