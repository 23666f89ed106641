#!/usr/bin/env ruby
# frozen_string_literal: true

# Photographs the clean scene pictures of "Salt Lantern" with made-up cameras:
#
#   bundle exec demo/shoot.rb FOOTAGE [SHOT ...]
#
# FOOTAGE holds what scenes/render.sh makes: a Matroska file of poses a shot, 12
# bits, code/4095 = (log2(light) + 14) / 20, BT.709 primaries. Each pose is held,
# exposed, given noise that differs from frame to frame, encoded as its camera
# encodes and written to media/; manifest.json keeps what was done to each shot.
# edit.rb makes the lists and the flat programme of it.

$LOAD_PATH.unshift(File.expand_path("../core/lib", __dir__))
require "mordant"
require "yaml"
require "fileutils"

module Demo
  include Mordant

  HERE = __dir__
  PRODUCTION = YAML.safe_load_file(File.join(HERE, "production.yml"))
  RATE = Rational(PRODUCTION["rate"])
  WIDTH, HEIGHT = PRODUCTION["raster"]

  # One shot before one camera.
  class Photograph
    LONGEST = 60 # frames

    def initialize(shot, footage)
      @shot, @footage = shot, footage
      @camera = PRODUCTION["cameras"].fetch(shot["camera"])
      @encoding = Mordant::Colour.encoding(@camera["encoding"])
      Numo::NArray.srand(shot["shot"].sum * 7919)
    end

    def path = "#{@shot["camera"]}/#{@shot["reel"]}/#{@shot["reel"]}_#{@shot["shot"]}.mov"

    # @return [Integer] frames written
    def take
      target = File.join(HERE, "media", path)
      FileUtils.mkdir_p(File.dirname(target))
      order = pose_order
      Mordant::Media::Command.feed(recorder(target), path: target) do |io|
        order.each { |pose| PRODUCTION["hold"].times { io.write(expose(poses[pose])) } }
      end
      puts format("%-28s %3d frames %6.2f MB", path, frames, File.size(target) / 1e6)
    end

    def frames = pose_order.size * PRODUCTION["hold"]

    # @param numbers [Array<Integer>] of poses
    # @return [Array<Mordant::Frame>] as they would be recorded without noise
    def clean(numbers) = poses.values_at(*numbers).map { |light| recorded(light) }

    private

    # There, and part of the way back.
    def pose_order
      count = 15
      list = (0...count).to_a
      list += (0...(count - 1)).to_a.reverse unless @shot["back"] == false
      list.first(LONGEST / PRODUCTION["hold"])
    end

    # @return [Array<Array<Numo::SFloat>>] camera-linear planes of each pose
    def poses
      @poses ||= begin
        file = File.join(@footage, "#{@shot["poses"]}.mkv")
        raw = Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-i", "file:#{file}", "-f", "rawvideo", "-pix_fmt",
          "gbrp12le", "pipe:1"], path: file, limit: 120)
        size = WIDTH * HEIGHT
        raw.unpack("a#{size * 6}" * (raw.bytesize / (size * 6))).map { |picture| camera_light(picture, size) }
      end
    end

    def camera_light(picture, size)
      green, blue, red = Array.new(3) do |plane|
        codes = Numo::UInt16.from_binary(picture.byteslice(plane * size * 2, size * 2))
        Mordant::Colour::Piecewise.exp2(Numo::SFloat.cast(codes) * (20.0 / 4095) - 14.0)
      end
      scene = Mordant::Colour.encoding("rec709-linear").decoding
      camera = @encoding.encoding.grep(Mordant::Pointwise::Matrix)
      gains = @shot["white"].map { |gain| gain * 2.0**@shot["exposure"] }
      Mordant::Pointwise::Chain.new([*scene, *camera, Mordant::Pointwise::Matrix.new(Mordant::Colour::Matrix3.diagonal(gains))])
        .call(Numo::NArray.vstack([red, green, blue]))
    end

    # @return [String] one frame as 16-bit RGB, with its own noise
    def expose(light)
      rating = @shot["rating"] / 800.0
      variance = light.clip(0.0, nil) * (@camera["shot"] * rating) + @camera["read"]**2 * rating
      grain = Numo::SFloat.new(*light.shape).rand_norm
      noisy = light + Numo::NMath.sqrt(variance) * grain
      Mordant::Media::Integers.interleave(recorded(noisy), 16).to_binary
    end

    def recorded(light)
      codes = Numo::NArray.vstack(Array.new(3) { |c| @encoding.transfer.encode(light[c, true].dup) })
      Mordant::Frame.new(Numo::SFloat.cast(codes), width: WIDTH, height: HEIGHT, encoding: @encoding.id)
    end

    def recorder(target)
      codec = (@camera["codec"] == "hevc") ? hevc : h264
      ["ffmpeg", "-v", "error", "-y", "-f", "rawvideo", "-pix_fmt", "rgb48le", "-s", "#{WIDTH}x#{HEIGHT}", "-framerate", RATE.to_s,
        "-i", "pipe:0", "-vf", Mordant::Media::Coding.from_rgb("yuv422p10le", matrix: "bt709", range: Mordant::Colour::SignalRange::LEGAL),
        *codec, "-colorspace", "bt709", "-color_range", "tv", "-timecode", @shot["start"], *tags, "-movflags", "use_metadata_tags+faststart",
        "-fflags", "+bitexact", "file:#{target}"]
    end

    def h264 = ["-c:v", "libx264", "-preset", "slow", "-profile:v", "high422", "-g", "6", "-crf", quality, "-threads", "2"]

    def hevc = ["-c:v", "libx265", "-preset", "medium", "-crf", quality, "-x265-params", "keyint=6:log-level=error", "-tag:v", "hvc1"]

    # Constant rate factors that keep a noisy shot below four megabytes.
    def quality
      factor = {800 => 10, 1280 => 12, 1600 => 13, 2560 => 14, 3200 => 15}.fetch(@shot["rating"])
      (factor + ((@camera["codec"] == "hevc") ? 2 : 0)).to_s
    end

    def tags
      found = {"camera" => @shot["camera"], "reel" => @shot["reel"], "scene" => @shot["scene"].to_s, "take" => @shot["shot"]}
      found["encoding"] = @encoding.id if @camera["declares"]
      found.flat_map { |name, value| ["-metadata", "#{name}=#{value}"] }
    end
  end

  # The manifest.
  class Papers
    def initialize(takes)
      @takes = takes # [shot, Photograph]
    end

    def write
      File.write(File.join(HERE, "manifest.json"), JSON.pretty_generate(manifest) << "\n")
    end

    private

    def manifest
      {title: PRODUCTION["title"], rate: PRODUCTION["rate"], raster: [WIDTH, HEIGHT], scenes: PRODUCTION["scenes"],
       cameras: PRODUCTION["cameras"], shots: @takes.map { |shot, photograph| entry(shot, photograph) }}
    end

    # "truth" is what was done wrong: stops of light too many, gains of the camera's
    # red, green and blue, and the deviation of the noise at black and at mid grey.
    def entry(shot, photograph)
      camera = PRODUCTION["cameras"][shot["camera"]]
      rating = shot["rating"] / 800.0
      noise = [0.0, 0.18].map { |x| Math.sqrt((camera["read"]**2 + camera["shot"] * x) * rating).round(6) }
      {shot: shot["shot"], scene: shot["scene"], clip: photograph.path, camera: shot["camera"], encoding: camera["encoding"],
       reel: shot["reel"], start: shot["start"], frames: photograph.frames, rating: shot["rating"],
       in: shot["in"], for: shot["for"], dissolve: shot.fetch("dissolve", 0), poses: shot["poses"],
       truth: {exposure: shot["exposure"], white: shot["white"], noise:}}
    end
  end

  def self.run(footage, only)
    takes = PRODUCTION["shots"].map { |shot| [shot, Photograph.new(shot, footage)] }
    takes.each { |shot, photograph| photograph.take if only.empty? || only.include?(shot["shot"]) }
    Papers.new(takes).write
  end
end

if $PROGRAM_NAME == __FILE__
  abort("usage: bundle exec demo/shoot.rb FOOTAGE [SHOT ...]") if ARGV.empty?
  Demo.run(ARGV.first, ARGV.drop(1))
end
