# frozen_string_literal: true

require "spec_helper"
require "support/numbered"

RSpec.describe Mordant::Media::FrameIndex, :folder do
  let(:frames) { 14 }

  Numbered::KINDS.each do |kind, (name, rate, arguments)|
    it "gives every frame its picture from every start: #{kind}" do
      probe = Mordant::Media::Probe.new(Numbered.make(@folder, name, rate:, arguments:, frames: frames))
      expect(probe.facts).to have_attributes(frames: frames, rate: Rational(rate), variable: false)
      reader = Mordant::Media::Reader.new(File.join(@folder, name), facts: probe.facts, index: described_class.load(probe.index.dump))
      expect(Numbered.starts(reader, frames: frames, run: 2)).to eq((0...frames).map { |first| [first, first + 1].select { |number| number < frames } })
      whole = []
      reader.each(first: 0, count: frames, width: 128, height: 96) { |codes| whole << Numbered.read(codes) }
      expect(whole).to eq((0...frames).to_a)
    end
  end

  it "counts the pictures that are seen where an edit list cuts the beginning away" do
    whole = Numbered.make(@folder, "whole.mp4", rate: 25, arguments: [*Numbered::X264, "keyint=12:bframes=3"], frames: 40)
    path = File.join(@folder, "cut.mov")
    Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-ss", "0.7", "-i", whole, "-c", "copy", path], path:)
    probe = Mordant::Media::Probe.new(path)
    first = Numbered.read(Mordant::Media::Reader.new(path).frame(0, width: 128, height: 96))
    expect(first).to be_between(12, 18)
    expect(probe.facts.frames).to eq(40 - first)
    expect(Numbered.starts(Mordant::Media::Reader.new(path), frames: 40 - first, run: 1, every: 3).flatten).to eq((first...40).step(3).to_a)
  end

  it "numbers frames of uneven length one after another, and says so" do
    path = Numbered.make(@folder, "uneven.mp4", rate: 25, frames: frames,
      arguments: ["-vf", "setpts='(N+floor(N/5)*2)/25/TB'", "-fps_mode", "vfr", *Numbered::X264, "keyint=12:bframes=3"])
    probe = Mordant::Media::Probe.new(path)
    expect(probe.facts).to have_attributes(frames: frames, variable: true)
    expect(Numbered.starts(Mordant::Media::Reader.new(path), frames: frames, run: 2, every: 3)).to eq((0...frames).step(3).map { |n| [n, n + 1].select { |one| one < frames } })
  end

  it "is made anew for a file that was written again" do
    path = Numbered.make(@folder, "again.mkv", rate: 25, arguments: %w[-c:v ffv1], frames: 12)
    index = described_class.of(path)
    Numbered.make(@folder, "again.mkv", rate: 25, arguments: %w[-c:v ffv1], frames: 20)
    expect(Numbered.read(Mordant::Media::Reader.new(path, index:).frame(17, width: 128, height: 96))).to eq(17)
  end

  it "refuses a file that holds less than it says" do
    path = Numbered.make(@folder, "whole.mkv", rate: 25, arguments: %w[-c:v mjpeg -q:v 2 -pix_fmt yuvj420p], frames: 40)
    short = File.join(@folder, "short.mkv")
    File.binwrite(short, File.binread(path, File.size(path) / 2))
    expect { Mordant::Media::Probe.call(short) }.to raise_error(Mordant::MediaError, /short.mkv: it says it is 1.60 seconds long .* cut short/)
  end
end
