# frozen_string_literal: true

require "open3"
require "vips"
require "yaml"

# The demo's night shots as they would be without noise, and with what their cameras add to light.
module NightShots
  HERE = File.expand_path("../../../demo", __dir__)
  PRODUCTION = YAML.safe_load_file(File.join(HERE, "production.yml"))
  NAMES = %w[3A 3B 3C 2C].freeze
  WIDTH, HEIGHT = 288, 160
  # Filters of ffmpeg and how strong each is tried.
  FILTERS = {
    "hqdn3d" => [2, 3, 4, 5.5, 7].map { |by| "format=yuv444p16le,hqdn3d=#{by}:#{by}:#{by * 1.5}:#{by * 1.5}" },
    "atadenoise" => [0.02, 0.04, 0.06].map { |by| "format=yuv444p16le,atadenoise=s=5:" + (0..2).map { |plane| "#{plane}a=#{by}:#{plane}b=#{by * 2}" }.join(":") },
    "nlmeans" => [1.5, 2, 2.5, 3, 4].map { |by| "format=gbrp,nlmeans=s=#{by}:p=5:r=11" }
  }.freeze

  module_function

  # @return [Hash] of production.yml
  def shot(name) = PRODUCTION["shots"].find { |shot| shot["shot"] == name }

  # @param pose [Integer] 6 or 7
  # @return [Mordant::Frame] codes of the camera
  def clean(name, pose)
    image = Vips::Image.new_from_file(File.join(HERE, "truth", "clean", "#{name}_#{pose}.png"))
    codes = Numo::SFloat.cast(Numo::UInt16.from_binary(image.write_to_memory, [WIDTH * HEIGHT, 3])).transpose.dup * (1.0 / 65_535)
    Mordant::Frame.new(codes, width: WIDTH, height: HEIGHT, encoding: PRODUCTION["cameras"].fetch(shot(name)["camera"])["encoding"])
  end

  # With noise of its own: that of reading, and that of light, which grows with it.
  def noisy(name, pose)
    camera, rating, still = PRODUCTION["cameras"].fetch(shot(name)["camera"]), shot(name)["rating"] / 800.0, clean(name, pose)
    transfer = Mordant::Colour.encoding(still.encoding).transfer
    planes = (0..2).map do |channel|
      light = transfer.decode(still.rgb[channel, true].dup)
      transfer.encode(light + Numo::NMath.sqrt(light.clip(0.0, nil) * (camera["shot"] * rating) + camera["read"]**2 * rating) * Numo::SFloat.new(light.size).rand_norm)
    end
    Mordant::Frame.new(Numo::SFloat.cast(Numo::NArray.vstack(planes)), width: WIDTH, height: HEIGHT, encoding: still.encoding)
  end

  # Mid grey with that much noise of light.
  def grey(encoding, deviation)
    light = Numo::SFloat.new(3, WIDTH * HEIGHT).rand_norm * deviation + 0.18
    Mordant::Frame.new(Numo::SFloat.cast(Mordant::Colour.encoding(encoding).transfer.encode(light)), width: WIDTH, height: HEIGHT, encoding:)
  end

  # @return [Numo::SFloat] [3, n] log codes of the working space
  def log(frame) = Mordant::Colour::Conversion.new(from: frame.encoding, to: "acescct").chain.call(frame.rgb.dup)

  # Decibels of a whole code range.
  def likeness(made, truth) = -10 * Math.log10((Numo::DFloat.cast(made - truth)**2).mean)

  # How much of the truth's edge contrast is kept where it is strong: the slope of one on the other.
  def contrast(made, truth)
    own, true_ones = [made, truth].map { |rgb| edges(Numo::DFloat.cast(rgb)) }
    strong = true_ones.abs > 0.05
    (own[strong] * true_ones[strong]).sum / (true_ones[strong]**2).sum
  end

  def edges(rgb)
    grey = rgb.mean(axis: 0).reshape(HEIGHT, WIDTH)
    Numo::NArray.concatenate([(grey[true, 2..] - grey[true, 0..-3]).flatten, (grey[2.., true] - grey[0..-3, true]).flatten])
  end

  # @param frames [Array<Numo::SFloat>]
  # @return [Array(Float, Float)] likeness and contrast of the filter that is best at its best, of the third frame
  def best_filter(frames, truth) = FILTERS.values.flatten.map { |filter| filtered(frames, filter) }.map { |made| [likeness(made, truth), contrast(made, truth)] }.max

  def filtered(frames, filter)
    raw = frames.map { |frame| [1, 2, 0].map { |channel| Numo::UInt16.cast(frame[channel, true].clip(0, 1) * 65_535 + 0.5).to_binary }.join }.join
    size = raw.bytesize / frames.size
    out, told, done = Open3.capture3("ffmpeg", "-v", "error", "-f", "rawvideo", "-pix_fmt", "gbrp16le", "-s", "#{WIDTH}x#{HEIGHT}", "-i", "-", "-vf", filter, "-f", "rawvideo", "-pix_fmt", "gbrp16le", "-", stdin_data: raw, binmode: true)
    raise told unless done.success?

    green, blue, red = out.byteslice(size * 2, size).unpack("a#{size / 3}" * 3).map { |plane| Numo::SFloat.cast(Numo::UInt16.from_binary(plane)) * (1.0 / 65_535) }
    Numo::NArray.vstack([red, green, blue])
  end
end
