# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Cut::Relink do
  def footage(path, reel: nil, start: nil, frames: 240, rate: 24r)
    described_class::Footage.new(path:, reel:, start: start && Mordant::Cut::Timecode.parse(start, rate), frames:, rate:)
  end

  def event(reel: "AX", clip: nil, file: nil, source: %w[01:00:02:00 01:00:04:00], rate: 24r)
    first, last = source.map { |text| Mordant::Cut::Timecode.parse(text, rate) }
    Mordant::Cut::List::Event.new(number: 1, reel:, clip:, file:, transition: Mordant::Cut::List::CUT, source_in: first, source_out: last, record_in: first, record_out: last, speed: 1r)
  end

  def link(event, *footage) = described_class.new(footage).link(event).then { |one| one.footage ? [one.footage.path, one.rule, one.source_in] : one }

  it "goes by reel and timecode first, cut off as the reel may be" do
    ours = footage("a/x.mov", reel: "H014C003_230912", start: "01:00:00:00")
    later = footage("a/y.mov", reel: "H014C003_230912", start: "02:00:00:00")
    other = footage("b/z.mov", reel: "H015", start: "01:00:00:00")
    expect(link(event(reel: "H014C003", clip: "z.mov"), ours, later, other)).to eq(["a/x.mov", "reel and timecode", 48])
    expect(link(event(reel: "H014C003_230912"), ours, footage("c.mov", reel: "H014C003", start: "01:00:00:00"))).to eq(["a/x.mov", "reel and timecode", 48])
  end

  it "goes by file name and then by clip name, by timecode where there is one, else from the first frame" do
    tape = footage("card/H014_1A.mov", start: "01:00:01:00")
    film = footage("card/wide.mov")
    expect(link(event(file: "h014_1a.MOV", clip: "wide"), tape, film)).to eq(["card/H014_1A.mov", "file name", 24])
    expect(link(event(clip: "H014_1A"), tape, film)).to eq(["card/H014_1A.mov", "clip name", 24])
    expect(link(event(clip: "wide", source: %w[00:00:01:00 00:00:02:00]), tape, film)).to eq(["card/wide.mov", "clip name", 24])
  end

  it "counts timecode at the footage's own rate" do
    expect(link(event(reel: "R", source: %w[01:00:02:00 01:00:04:00]), footage("x.mov", reel: "R", start: "01:00:00:00", rate: 25r))).to eq(["x.mov", "reel and timecode", 50])
  end

  it "leaves to a person what several files fit, and says of what is missing why" do
    both = [footage("a/x.mov", reel: "R1", start: "01:00:00:00"), footage("b/x.mov", reel: "R1", start: "01:00:00:00")]
    found = link(event(reel: "R1"), *both)
    expect([found.candidates.map(&:path), found.reason]).to eq([["a/x.mov", "b/x.mov"], "2 files fit by reel and timecode"])
    short = link(event(reel: "R1", source: %w[01:00:09:00 01:00:11:00]), both.first)
    expect([short.candidates.map(&:path), short.reason]).to eq([["a/x.mov"], "x.mov by reel and timecode: without the frames from 01:00:09:00 to 01:00:11:00"])
    expect(link(event(reel: "R9", clip: "gone.mov"), *both).reason).to eq("nothing has the reel R9 or the name gone.mov")
    expect(link(event(reel: "BL")).rule).to eq("black")
  end
end
