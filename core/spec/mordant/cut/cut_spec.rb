# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Cut::Timecode do
  ntsc = Rational(30_000, 1001)

  it "writes what it read" do
    ["00:00:00:00", "23:59:59:23", "09:12:04:11"].each { |text| expect(described_class.parse(text, Rational(24)).to_s).to eq(text) }
    ["00:00:59;29", "00:01:00;02", "00:10:00;00", "01:00:00;00", "23:59:59;29"].each { |text| expect(described_class.parse(text, ntsc).to_s).to eq(text) }
  end

  it "drops two numbers every minute but each tenth" do
    expect(described_class.new(1799, ntsc, drop: true).to_s).to eq("00:00:59;29")
    expect(described_class.new(1800, ntsc, drop: true).to_s).to eq("00:01:00;02")
    expect(described_class.parse("00:10:00;00", ntsc).frames).to eq(17_982)
    expect(described_class.parse("01:00:00;00", ntsc).frames).to eq(107_892)
    (0...40_000).step(7) { |n| expect(described_class.parse(described_class.new(n, ntsc, drop: true).to_s, ntsc).frames).to eq(n) }
  end

  it "goes round at midnight" do
    expect((described_class.parse("23:59:59:23", Rational(24)) + 1).to_s).to eq("00:00:00:00")
  end

  it "refuses what is no timecode at the rate" do
    ["1:00:00:00", "00:00:00:24", "25:00:00:00", "00:61:00:00", nil, "00:00:00;00"].each do |text|
      expect { described_class.parse(text, Rational(24)) }.to raise_error(Mordant::ParameterError, /timecode/)
    end
  end

  it "packs as SMPTE ST 12-1 does" do
    expect(described_class.parse("12:34:56:17", Rational(24)).smpte_word).to eq(0x12345617)
  end
end

RSpec.describe Mordant::Cut::Timeline do
  def shot(key, record_in, length, **more)
    described_class::Shot.new(key:, source_in: 4, record_in:, length:, dissolve: 0, clip_frames: 60, **more)
  end

  let(:timeline) { described_class.new([shot(:a, 0, 20), shot(:b, 20, 30, dissolve: 4), shot(:c, 50, 10)]) }

  it "says what a record frame is made of" do
    expect(timeline.layers(5).map(&:to_a)).to eq([[timeline.shots[0], 9, 1.0, nil]])
    expect(timeline.layers(30).map(&:source_frame)).to eq([14])
    mixed = timeline.layers(21)
    expect(mixed.map { |layer| [layer.shot.key, layer.source_frame] }).to eq([[:a, 25], [:b, 5]])
    expect(mixed.map(&:share)).to match([be_within(1e-12).of(0.6), be_within(1e-12).of(0.4)])
    expect { timeline.layers(60) }.to raise_error(Mordant::ParameterError, /60 long/)
  end

  it "covers any stretch with segments, each made from the same shots" do
    found = timeline.segments(18, 40)
    expect(found.map { |s| [s.first, s.length, s.outgoing&.key, s.incoming.key] })
      .to eq([[18, 2, nil, :a], [20, 4, :a, :b], [24, 26, nil, :b], [50, 8, nil, :c]])
  end

  it "refuses gaps, overlaps, missing frames and missing handles" do
    {"begin at 20" => [shot(:a, 0, 20), shot(:b, 22, 5)], "begin at 20 " => [shot(:a, 0, 20), shot(:b, 18, 5)],
     "within the 60" => [shot(:a, 0, 57)], "handle after shot a" => [shot(:a, 0, 55), shot(:b, 55, 9, dissolve: 3)],
     "a shot before" => [shot(:a, 0, 20, dissolve: 2)], "at least one" => [shot(:a, 0, 0)]}.each do |words, shots|
      expect { described_class.new(shots) }.to raise_error(Mordant::ParameterError, /#{words.strip}/)
    end
  end
end

RSpec.describe Mordant::Cut::EDL do
  it "writes cuts and dissolves as CMX 3600 has them" do
    at = ->(text) { Mordant::Cut::Timecode.parse(text, Rational(24)) }
    first = Mordant::Cut::Written.new(reel: "H014", source_in: at["09:00:00:00"], record_in: at["01:00:00:00"], length: 48, name: "one.mov")
    second = Mordant::Cut::Written.new(**first.to_h, reel: "a long reel name", record_in: at["01:00:02:00"], name: "two.mov", dissolve: 12)
    third = Mordant::Cut::Written.new(**first.to_h, record_in: at["01:00:04:00"], wipe: 21, dissolve: 6, speed: -0.5)
    expect(described_class.write("TRY", [first, second, third])).to eq(<<~EDL)
      TITLE: TRY
      FCM: NON-DROP FRAME

      001  H014     V     C        09:00:00:00 09:00:02:00 01:00:00:00 01:00:02:00
      * FROM CLIP NAME: one.mov

      002  H014     V     C        09:00:02:00 09:00:02:00 01:00:02:00 01:00:02:00
      002  ALONGREE V     D    012 09:00:00:00 09:00:02:00 01:00:02:00 01:00:04:00
      * FROM CLIP NAME: one.mov
      * TO CLIP NAME: two.mov
      * TO REEL: a long reel name

      003  ALONGREE V     C        09:00:02:00 09:00:02:00 01:00:04:00 01:00:04:00
      003  H014     V     W021 006 08:59:59:01 09:00:00:01 01:00:04:00 01:00:06:00
      M2   H014             -12.0                09:00:00:00
      * FROM CLIP NAME: two.mov
      * TO CLIP NAME: one.mov

    EDL
  end
end
