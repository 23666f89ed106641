# frozen_string_literal: true

require "spec_helper"
require "support/numbered"

RSpec.describe Mordant::Media::WorkingCopy, :folder do
  def made(path, width:, height:)
    probe = Mordant::Media::Probe.new(path)
    reader = Mordant::Media::Reader.new(path, facts: probe.facts, index: probe.index)
    copy = described_class.new(File.join(@folder, "small#{described_class::EXTENSION}"), rate: probe.facts.rate)
    copy.write(reader, frames: probe.facts.frames, width:, height:, pixels: described_class.pixels(reader.coding, probe.facts.bit_depth))
    [reader, copy]
  end

  it "shows each frame within one 10-bit code of the original reduced to its raster" do
    path = File.join(@folder, "large.mov")
    Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-f", "lavfi", "-i", "testsrc2=s=640x360:r=25,noise=alls=12:allf=t", "-frames:v", "14",
      *Numbered::X265, "log-level=error:open-gop=1:keyint=6:min-keyint=6", "-pix_fmt", "yuv420p10le", path], path:)
    reader, copy = made(path, width: 160, height: 90)
    [0, 5, 7, 13].each do |number|
      whole, small = [reader, copy.reader].map { |one| Numo::DFloat.cast(one.frame(number, width: 160, height: 90).rgb) / 65_535 * 1023 }
      expect((whole - small).abs.mean).to be < 1.0
      expect((whole - small).mean.abs).to be < 0.05
    end
  end

  it "keeps the numbers of frames" do
    path = Numbered.make(@folder, "o.mp4", rate: 25, arguments: Numbered::KINDS["H.265, open groups, MP4"].last, frames: 24)
    _, copy = made(path, width: 128, height: 96)
    expect(Numbered.starts(copy.reader, frames: 24, run: 3, every: 5)).to eq((0...24).step(5).map { |n| [n, n + 1, n + 2].select { |one| one < 24 } })
  end

  it "leaves nothing behind where the clip cannot be decoded" do
    path = File.join(@folder, "copy")
    broken = Class.new { def each(**) = raise(Mordant::MediaError.new("x", "broken")) }.new
    expect { described_class.new(path, rate: 25r).write(broken, frames: 3, width: 16, height: 16, pixels: "gbrp10le") }.to raise_error(Mordant::MediaError)
    expect(Dir.children(@folder)).to be_empty
  end
end

RSpec.describe Mordant::Media::Paced, :folder do
  it "shows at another rate what the clip shows at that time, alone and in runs" do
    path = Numbered.make(@folder, "fast.mkv", rate: 50, arguments: %w[-c:v ffv1], frames: 40)
    paced = described_class.new(Mordant::Media::Reader.new(path), from: 50r, to: 25r, size: 40)
    expect(described_class.frames(40, from: 50r, to: 25r)).to eq(20)
    expect(Numbered.starts(paced, frames: 20, run: 3, every: 6)).to eq([0, 6, 12, 18].map { |n| [n, n + 1, n + 2].select { |one| one < 20 }.map { |one| 2 * one + 1 } })
    slow = described_class.new(Mordant::Media::Reader.new(path), from: 24r, to: 60r, size: 40)
    expect(Numbered.starts(slow, frames: 100, run: 5, every: 50)).to eq([[0, 0, 1, 1, 1], [20, 20, 21, 21, 21]])
  end
end
