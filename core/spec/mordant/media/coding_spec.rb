# frozen_string_literal: true

require "spec_helper"

# Patches of known codes, computed here from the standards: ITU-R BT.601-7, 2.5; BT.709-6, 3 and
# 4; BT.2020-2, tables 4 and 5.
module KnownCodes
  WEIGHTS = {"smpte170m" => [0.299, 0.587, 0.114], "bt709" => [0.2126, 0.7152, 0.0722], "bt2020nc" => [0.2627, 0.678, 0.0593]}.freeze
  # White, grey, black; then yellow, cyan, green, magenta, red, blue at 100 and at 75 %.
  PATCHES = [[1, 1, 1], [0.5, 0.5, 0.5], [0, 0, 0],
    *[1.0, 0.75].flat_map { |level| [[1, 1, 0], [0, 1, 1], [0, 1, 0], [1, 0, 1], [1, 0, 0], [0, 0, 1]].map { |rgb| rgb.map { |x| x * level } } }].freeze
  PATCH = 16 # pixels
  WIDTH = PATCH * PATCHES.size
  HEIGHT = 16

  module_function

  # @return [Array<Float>] codes, not rounded
  def of(rgb, matrix:, bits:, full:)
    kr, kg, kb = WEIGHTS.fetch(matrix)
    r, g, b = rgb
    luma = kr * r + kg * g + kb * b
    differences = [(b - luma) / (2 * (1 - kb)), (r - luma) / (2 * (1 - kr))]
    return [luma * (2**bits - 1), *differences.map { |c| c * (2**bits - 1) + 2**(bits - 1) }] if full

    step = 2**(bits - 8)
    [(219 * luma + 16) * step, *differences.map { |c| (224 * c + 128) * step }]
  end

  # @return [Array<Float>] red, green, blue, held to 0..1
  def back(codes, matrix:, bits:, full:)
    kr, kg, kb = WEIGHTS.fetch(matrix)
    luma, cb, cr = full ? codes.zip([0, 2**(bits - 1), 2**(bits - 1)]).map { |code, zero| (code - zero).fdiv(2**bits - 1) } : legal(codes, 2**(bits - 8))
    r = luma + 2 * (1 - kr) * cr
    b = luma + 2 * (1 - kb) * cb
    [r, (luma - kr * r - kb * b) / kg, b].map { |x| x.clamp(0.0, 1.0) }
  end

  def legal(codes, step) = [(codes[0].fdiv(step) - 16) / 219, *codes.drop(1).map { |code| (code.fdiv(step) - 128) / 224 }]

  # @return [String] raw planes
  def planes(chroma:, bits:, **how)
    wide, high = {"444" => [1, 1], "422" => [2, 1], "420" => [2, 2]}.fetch(chroma)
    codes = PATCHES.map { |rgb| of(rgb, bits:, **how).map { |code| code.round.clamp(0, 2**bits - 1) } }
    3.times.map do |plane|
      across, down = (plane == 0) ? [PATCH, HEIGHT] : [PATCH / wide, HEIGHT / high]
      codes.flat_map { |code| [code[plane]] * across }.pack((bits == 8) ? "C*" : "S<*") * down
    end.join
  end
end

RSpec.describe Mordant::Media::Coding, :folder do
  def pixels(chroma, bits) = "yuv#{chroma}p#{"#{bits}le" if bits > 8}"

  [8, 10, 12].product(%w[444 422 420], KnownCodes::WEIGHTS.keys, [false, true]).each do |bits, chroma, matrix, full|
    # every depth, sampling, matrix and range meets every other at least in one direction
    next if chroma != "420" && (bits != 10 || full)

    it "reads and writes #{bits} bits, #{chroma}, #{matrix}, #{full ? "full" : "legal"} within half a code" do
      path = File.join(@folder, "patches.mkv")
      Mordant::Media::Command.feed(["ffmpeg", "-v", "error", "-y", "-f", "rawvideo", "-pix_fmt", pixels(chroma, bits), "-s", "#{KnownCodes::WIDTH}x#{KnownCodes::HEIGHT}",
        "-framerate", "25", "-i", "pipe:0", "-c:v", "ffv1", "-colorspace", matrix, "-color_range", full ? "pc" : "tv", "file:#{path}"], path:) do |io|
        io.write(KnownCodes.planes(chroma:, bits:, matrix:, full:))
      end
      codes = Mordant::Media::Reader.new(path).frame(0, width: KnownCodes::WIDTH, height: KnownCodes::HEIGHT)
      half = 0.5 / (full ? 2**bits - 1 : 219 * 2**(bits - 8))
      KnownCodes::PATCHES.each_with_index do |rgb, number|
        meant = KnownCodes.of(rgb, matrix:, bits:, full:).map { |code| code.round.clamp(0, 2**bits - 1) }
        found = codes.rgb[true, 8 * KnownCodes::WIDTH + number * KnownCodes::PATCH + 8].to_a.map { |code| code / 65_535.0 }
        KnownCodes.back(meant, matrix:, bits:, full:).zip(found) { |want, got| expect(got).to be_within(half).of(want), "patch #{number}: #{found}" }
      end

      raw = written(pixels(chroma, bits), matrix, full)
      KnownCodes::PATCHES.each_with_index do |rgb, number|
        wanted = KnownCodes.of(rgb, matrix:, bits:, full:).map { |code| code.clamp(0, 2**bits - 1) }
        found = sample(raw, number, chroma, bits)
        wanted.zip(found) { |want, got| expect(got).to be_within(0.51).of(want), "patch #{number}: #{found} for #{wanted}" }
      end
    end
  end

  # Raw planes of what is written of the patches.
  def written(pixels, matrix, full)
    line = 3.times.map { |channel| KnownCodes::PATCHES.flat_map { |rgb| [(rgb[channel] * 65_535).round] * KnownCodes::PATCH } }
    packed = line.transpose.flatten.pack("S<*") * KnownCodes::HEIGHT
    out = File.join(@folder, "raw")
    Mordant::Media::Command.feed(["ffmpeg", "-v", "error", "-y", "-f", "rawvideo", "-pix_fmt", "rgb48le", "-s", "#{KnownCodes::WIDTH}x#{KnownCodes::HEIGHT}", "-i", "pipe:0",
      "-vf", described_class.from_rgb(pixels, matrix:, range: full ? "full" : "legal"), "-f", "rawvideo", "-pix_fmt", pixels, out], path: out) { |io| io.write(packed) }
    File.binread(out)
  end

  def sample(raw, number, chroma, bits)
    wide, high = {"444" => [1, 1], "422" => [2, 1], "420" => [2, 2]}.fetch(chroma)
    all = raw.unpack((bits == 8) ? "C*" : "S<*")
    luma = KnownCodes::WIDTH * KnownCodes::HEIGHT
    row, column = KnownCodes::HEIGHT / 2, number * KnownCodes::PATCH + KnownCodes::PATCH / 2
    difference = (row / high) * (KnownCodes::WIDTH / wide) + column / wide
    [all[row * KnownCodes::WIDTH + column], all[luma + difference], all[luma + luma / wide / high + difference]]
  end

  it "reads what names no matrix by its raster and primaries, and what names no range by its kind" do
    of = ->(**about) { described_class.new(pixel_format: "yuv420p", **about).then { |coding| [coding.matrix, coding.range] } }
    expect(of[width: 720, height: 576]).to eq(%w[smpte170m legal])
    expect(of[width: 720, height: 480, primaries: "bt709", matrix: "bt709"]).to eq(%w[bt709 legal])
    expect(of[width: 1280, height: 720]).to eq(%w[bt709 legal])
    expect(of[width: 3840, height: 2160]).to eq(%w[bt709 legal])
    expect(of[width: 3840, height: 2160, primaries: "bt2020"]).to eq(%w[bt2020nc legal])
    expect(described_class.new(pixel_format: "rgb48le", width: 8, height: 8).range).to eq("full")
  end

  it "refuses a matrix that needs more than the codes, and numbers that are no red, green and blue" do
    expect { described_class.new(pixel_format: "yuv420p10le", width: 64, height: 64, matrix: "bt2020c") }.to raise_error(Mordant::ParameterError, /matrix/)
    expect { described_class.new(pixel_format: "bayer_rggb16le", width: 64, height: 64) }.to raise_error(Mordant::ParameterError, /sensor-raw/)
  end

  # One grey, of code 125 of 255, as bytes of a line of pixels or of planes.
  {"yuv420p" => [125, 128, 4], "nv12" => [125, 128, 4], "yuv422p" => [125, 128, 2], "yuva444p" => [125, 128, 1], "rgb24" => [125], "bgra" => [125], "gray" => [125]}.each do |format, (luma, chroma, part)|
    it "reads #{format}, of odd rasters too" do
      [[64, 36], [65, 37]].each do |width, height|
        coding = described_class.new(pixel_format: format, width:, height:)
        differences = {4 => [(width + 1) / 2, (height + 1) / 2], 2 => [(width + 1) / 2, height], 1 => [width, height]}[part]&.reduce(:*).to_i * 2
        bytes = [luma].pack("C") * (width * height) + [chroma.to_i].pack("C") * differences + [luma].pack("C") * (width * height * 3)
        path = File.join(@folder, "raw")
        File.binwrite(path, bytes)
        data = Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-f", "rawvideo", "-pix_fmt", format, "-s", "#{width}x#{height}", "-i", path, "-frames:v", "1",
          "-vf", coding.to_rgb(width: 32, height: 18), "-f", "rawvideo", "pipe:1"], path: format)
        codes = Mordant::Media::Codes.from_planes(data, width: 32, height: 18).rgb
        level = coding.luma? ? (125 - 16) / 219.0 : 125 / 255.0
        expect([codes.min, codes.max].map { |code| code / 65_535.0 }).to all(be_within(0.1 / 255).of(level))
      end
    end
  end
end
