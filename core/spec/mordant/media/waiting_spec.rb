# frozen_string_literal: true

require "spec_helper"
require "support/footage"
require "support/numbered"

RSpec.describe Mordant::Media::Waiting, :folder do
  before do
    @came = came = []
    allow(described_class).to receive(:new).and_wrap_original do |make|
      make.call.tap { |one| allow(one).to receive(:read).and_wrap_original { |read, *file, **how, &block| read.call(*file, **how, &block).tap { |done| came << done } } }
    end
    described_class.keep(1)
  end

  after { described_class.stop }

  Numbered::KINDS.each do |kind, (name, rate, arguments)|
    it "gives every frame its picture: #{kind}" do
      reader = Mordant::Media::Reader.new(Numbered.make(@folder, name, rate:, arguments:, frames: 14))
      expect(Numbered.starts(reader, frames: 14, run: 2, every: 3)).to eq([0, 3, 6, 9, 12].map { |first| [first, first + 1] })
      expect(@came).to eq([2] * 5) if name.match?(/mov|mp4|mkv|webm|intra.mxf/)
    end
  end

  it "is told of names as they are, and of a frame that cannot be decoded as ever" do
    path = Footage.steps(@folder, name: "it's 100 % #one.mkv")
    reader = Mordant::Media::Reader.new(path)
    expect(reader.frame(7, width: 64, height: 36).rgb[0, 9]).to be_within(40).of(Footage.code(7))
    expect(@came).to eq([1])
    broken = File.binread(path)
    broken[broken.bytesize / 2, 3_000] = "\0".b * 3_000
    index = Mordant::Media::FrameIndex.of(path)
    File.binwrite(path, broken)
    stamp = Mordant::Media::FrameIndex.stamp(path)
    broken_reader = proc { Mordant::Media::Reader.new(path, index: Mordant::Media::FrameIndex.new(times: index.times, keys: nil, time_base: index.time_base, stamp:)) }
    told = [described_class, nil].map do |kept|
      described_class.stop unless kept
      seen = 0
      expect { broken_reader.call.each(first: 0, count: 12, width: 64, height: 36) { seen += 1 } }.to raise_error(Mordant::MediaError) { |error| seen = [seen, error.message] }
      seen
    end
    expect(told.first).to eq(told.last)
  end

  it "is replaced when it has done its work, whatever became of that, and is not lent for a file that it did not come along with" do
    path = Footage.steps(@folder)
    reading = -> { Mordant::Media::Reader.new(path).frame(3, width: 64, height: 36).rgb[0, 0] }
    expect { Mordant::Media::Reader.new(path).each(first: 0, count: 12, width: 64, height: 36) { raise "full" } }.to raise_error("full")
    expect(reading.call).to be_within(40).of(Footage.code(3))
    expect(@came).to eq([1])
    described_class.lend(path) { 0 }
    expect([reading.call, @came]).to match([be_within(40).of(Footage.code(3)), [1]])
  end

  it "is gone where it was ended meanwhile, and the frame comes all the same" do
    described_class.stop
    expect(described_class.lend("x") { 1 }).to eq(0)
    stub_const("#{described_class}::ARGUMENTS", ["true"])
    described_class.keep(1)
    expect(Mordant::Media::Reader.new(Footage.steps(@folder)).frame(5, width: 64, height: 36).rgb[0, 0]).to be_within(40).of(Footage.code(5))
  end
end
