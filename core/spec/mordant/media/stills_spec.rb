# frozen_string_literal: true

require "spec_helper"
require_relative "../../support/kernels"
require "vips"

RSpec.describe Mordant::Media::Stills, :folder do
  let(:values) { [0.0, 0.25, 0.5, 0.75, 1.0, -0.2, 1.3, Float::NAN] }
  let(:frame) { Mordant::Frame.new(Numo::SFloat.cast([values] * 3), width: 4, height: 2, encoding: "srgb") }

  it "keeps sixteen bits through a file, what is beyond held to the ends and NaN to 0" do
    %w[.png .tif].each do |extension|
      path = File.join(@folder, "one#{extension}")
      described_class.write(frame, path)
      expect(described_class.read(path).rgb[0, true].to_a).to eq([0, 16_384, 32_768, 49_151, 65_535, 0, 65_535, 0])
    end
  end

  it "spreads eight bits over the full range, and one channel over three" do
    path = File.join(@folder, "grey.png")
    Vips::Image.new_from_array([[0, 128, 255]]).cast(:uchar).write_to_file(path)
    codes = described_class.read(path)
    expect(codes.rgb.to_a).to eq([[0, 128 * 257, 65_535]] * 3)
  end

  it "takes a picture for what it is, whatever its name says" do
    grey = Mordant::Frame.new(Numo::SFloat.new(3, 64 * 36).fill(0.5), width: 64, height: 36, encoding: "srgb")
    facts = Mordant::Media::FrameFacts.new(rate: 24r, timecode: Mordant::Cut::Timecode.parse("01:00:00:00", 24r), name: "x")
    files = {"png" => Mordant::Media::Png.encode(grey, bits: 16), "dpx" => Mordant::Media::Dpx.new(bits: 10).encode(grey, facts),
             "exr" => Mordant::Media::EXR.new(primaries: Mordant::Colour::Primaries::REC709, rate: 24r).encode(grey), "jpeg" => Mordant::Media::Png.image(grey, 8).write_to_buffer(".jpg", Q: 95),
             "tiff" => Mordant::Media::Png.image(grey, 16).write_to_buffer(".tif")}
    files.each do |kind, bytes|
      path = File.join(@folder, "take [page=2] %d.png")
      File.binwrite(path, bytes)
      expect(described_class.read(path).rgb[0, 70] / 65_535.0).to be_within(0.003).of(0.5), kind
    end
    {"svg" => "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'/>", "gif" => "GIF89a" + "\0" * 40, "list" => "#EXTM3U\nfile:///etc/passwd\n"}.each_value do |bytes|
      path = File.join(@folder, "odd.png")
      File.binwrite(path, bytes)
      expect { described_class.read(path) }.to raise_error(Mordant::MediaError, /no PNG, TIFF, JPEG, DPX or OpenEXR/)
    end
  end

  it "refuses pictures that would take all memory before it decodes them" do
    large = File.join(@folder, "large.png")
    Vips::Image.black(9000, 9000).write_to_file(large, compression: 9)
    expect { described_class.read(large) }.to raise_error(Mordant::MediaError, /9000x9000 pixels are more than/)
    expect { described_class.small(large, width: 90) }.to raise_error(Mordant::MediaError, /9000x9000/)
  end

  it "refuses what it cannot read or write, with the file and the reason" do
    broken = File.join(@folder, "broken.png")
    described_class.write(Frames.ramp(width: 200, height: 50), File.join(@folder, "whole.png"))
    File.binwrite(broken, File.binread(File.join(@folder, "whole.png"))[0, 300])
    {broken => /cannot be read/, File.join(@folder, "none.png") => /not there/, __FILE__ => /no PNG, TIFF, JPEG, DPX or OpenEXR/}.each do |path, reason|
      expect { described_class.read(path) }.to raise_error(Mordant::MediaError, reason)
    end
    expect { described_class.write(frame, File.join(@folder, "x.jpg")) }.to raise_error(Mordant::MediaError, /written as one of/)
    expect { described_class.write(frame, File.join(@folder, "no/such/x.png")) }.to raise_error(Mordant::MediaError, /cannot be written/)
  end
end

RSpec.describe Mordant::Media::Png do
  it "holds what was encoded, in both depths" do
    frame = Frames.ramp(width: 64, height: 2)
    {8 => 255, 16 => 65_535}.each do |bits, largest|
      image = Vips::Image.new_from_buffer(described_class.encode(frame, bits:), "")
      expect([image.width, image.height, image.bands]).to eq([64, 2, 3])
      expect(image.getpoint(21, 1)).to eq([(21 / 63.0 * largest).round] * 3)
    end
  end

  it "carries no profile or text that would have a browser change the numbers" do
    image = Vips::Image.new_from_buffer(described_class.encode(Frames.ramp), "")
    expect(image.get_fields.grep(/icc|gamma|exif/)).to be_empty
  end
end

RSpec.describe Mordant::Media::PlainPng, :folder do
  include Kernels

  # Codes of 8 bits, some beyond the ends, some none.
  def frame(width, height)
    rgb = (Numo::SFloat.new(3, width * height).seq * 7 % 271 - 8) / 255
    rgb[1, 5], rgb[2, 40] = Float::NAN, Float::INFINITY
    Mordant::Frame.new(rgb, width:, height:, encoding: "srgb")
  end

  def codes(frame) = frame.rgb.dup.tap { |rgb| rgb[rgb.isnan] = 0.0 }.then { |rgb| Numo::UInt8.cast((rgb.clip(0, 1) * 255).round) }.transpose.dup.to_binary

  it "is a file that others read to the code" do
    picture, path = frame(300, 150), File.join(@folder, "plain.png")
    File.binwrite(path, described_class.file(picture))
    image = Vips::Image.new_from_file(path, fail_on: :warning)
    expect([image.width, image.height, image.write_to_memory]).to eq([300, 150, codes(picture)])
    expect(Mordant::Media::Command.run(["ffmpeg", "-v", "warning", "-xerror", "-err_detect", "crccheck+explode", "-i", path, "-f", "rawvideo", "-pix_fmt", "rgb24", "pipe:1"], path:)).to eq(codes(picture))
  end

  it "has the same bytes when they are made by a kernel, of any width, with rows that no block holds made by hand" do
    [[960, 40], [16, 900], [17, 801], [8192, 3], [8193, 2], [21_845, 2], [15, 1000]].each do |width, height|
      picture = frame(width, height)
      expect(Mordant::Media::PngRows.worth?(width, height)).to be(width.between?(16, 8192))
      file = described_class.file(picture)
      expect(file).to eq(one_by_one { described_class.file(picture) }), "#{width} x #{height}"
      expect(Vips::Image.new_from_buffer(file, "", fail_on: :warning).write_to_memory).to eq(codes(picture)), "#{width} x #{height}"
    end
    white = Mordant::Frame.new(Numo::SFloat.ones(3, 8192 * 4), width: 8192, height: 4, encoding: "srgb") # the largest sums of a row
    expect(Mordant::Media::PngRows.call(white, 2)[1]).to eq(Zlib.adler32(("\0".b + "\xFF".b * (8192 * 3)) * 4))
  end
end
