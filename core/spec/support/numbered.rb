# frozen_string_literal: true

# Videos whose every frame has its number in it, as black and white blocks.
module Numbered
  WIDTH = 128
  HEIGHT = 96
  BLOCK = 16 # pixels; eight in a row, one bit each
  # How footage is really coded: what is stored in another order than seen, groups that lean
  # on the one before, containers that round times, keep none, or cut the beginning away.
  X264 = %w[-c:v libx264 -pix_fmt yuv420p -preset fast -x264-params].freeze
  X265 = %w[-c:v libx265 -preset fast -pix_fmt yuv420p -x265-params].freeze
  KINDS = {
    "H.264, open groups, pyramid, MOV" => ["o.mov", 25, [*X264, "open-gop=1:keyint=8:min-keyint=8:bframes=5:b-pyramid=normal:scenecut=0"]],
    "H.265, open groups, MP4" => ["o.mp4", 25, [*X265, "log-level=error:open-gop=1:keyint=8:min-keyint=8:bframes=4:scenecut=0"]],
    "H.264, one keyframe, MP4 at 59.94" => ["long.mp4", "60000/1001", [*X264, "keyint=300:bframes=3"]],
    "H.264, open groups, Matroska at 59.94" => ["o.mkv", "60000/1001", [*X264, "open-gop=1:keyint=8:bframes=3:scenecut=0"]],
    "H.265, open groups, Matroska" => ["p.mkv", 24, [*X265, "log-level=error:open-gop=1:keyint=8:bframes=4:scenecut=0"]],
    "H.264, open groups, transport stream" => ["o.ts", 50, [*X264, "open-gop=1:keyint=8:bframes=3:scenecut=0"]],
    "MPEG-2, open groups, MXF" => ["long.mxf", 25, %w[-c:v mpeg2video -pix_fmt yuv422p -g 8 -bf 2 -b:v 8M]],
    "MPEG-2, transport stream" => ["m.ts", 25, %w[-c:v mpeg2video -pix_fmt yuv420p -g 8 -bf 2 -b:v 6M]],
    "H.264 with pictures stored in another order, AVI" => ["o.avi", 25, [*X264, "keyint=8:bframes=3"]],
    "VC-3, MXF" => ["intra.mxf", 25, %w[-s 256x192 -sws_flags neighbor -pix_fmt yuv422p10le -c:v dnxhd -profile:v dnxhr_hqx]],
    "Motion JPEG, AVI" => ["intra.avi", 25, %w[-c:v mjpeg -q:v 3 -pix_fmt yuvj420p]],
    "VP9, WebM" => ["v.webm", 30, %w[-c:v libvpx-vp9 -deadline realtime -cpu-used 8 -g 8 -b:v 2M]]
  }.freeze

  module_function

  # @return [String] path
  def make(folder, name, rate:, arguments:, frames: 40, before: [])
    path = File.join(folder, name)
    Mordant::Media::Command.feed(["ffmpeg", "-v", "error", "-y", "-f", "rawvideo", "-pix_fmt", "gray", "-s", "#{WIDTH}x#{HEIGHT}", "-framerate", rate.to_s,
      "-i", "pipe:0", *before, *arguments, "file:#{path}"], path:) { |io| frames.times { |number| io.write(picture(number)) } }
    path
  end

  # @return [String] grey bytes
  def picture(number)
    line = Array.new(WIDTH / BLOCK) { |bit| [(number[bit] == 1) ? 235 : 16] * BLOCK }.flatten.pack("C*")
    line * HEIGHT
  end

  # @param codes [Mordant::Media::Codes]
  # @return [Integer]
  def read(codes)
    step = codes.width / (WIDTH / BLOCK)
    row = codes.height / 2 * codes.width
    (WIDTH / BLOCK).times.sum { |bit| (codes.rgb[1, row + bit * step + step / 2] > 32_768) ? 1 << bit : 0 }
  end

  # Numbers of the frames of a clip, from every start and in runs.
  #
  # @param reader [Mordant::Media::Reader]
  # @return [Array<Array<Integer>>] what each start gave
  def starts(reader, frames:, run:, every: 1)
    (0...frames).step(every).map do |first|
      found = []
      reader.each(first:, count: [run, frames - first].min, width: WIDTH, height: HEIGHT) { |codes| found << read(codes) }
      found
    end
  end
end
