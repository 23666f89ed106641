# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Cut::Conform do
  let(:black) { described_class::Source.new(clip: :black, frames: 1_000_000, first: 0) }

  def conformed(edl, frames: 500, **more)
    list = Mordant::Cut::List.parse("list.edl", edl, rate: 24r)
    described_class.new(list, black:, **more) { |event| described_class::Source.new(clip: event.reel, frames:, first: event.source_in.frames, rule: "reel and timecode") }
  end

  def shots(found) = found.shots.map { |one| [one.clip, one.source_in, one.length, one.dissolve, one.speed] }

  it "puts events in their places, with black in holes" do
    found = conformed(<<~EDL)
      001  R1       V     C        00:00:01:00 00:00:02:00 01:00:00:00 01:00:01:00
      002  R2       V     C        00:00:01:00 00:00:02:00 01:00:02:00 01:00:03:00
      003  R2       V     C        00:00:05:00 00:00:05:00 01:00:03:00 01:00:03:00
      003  R3       V     D    012 00:00:02:00 00:00:04:00 01:00:03:00 01:00:05:00
      004  BL       V     C        00:00:00:00 00:00:00:12 01:00:05:00 01:00:05:12
    EDL
    expect(shots(found)).to eq([["R1", 24, 24, 0, 1.0], [:black, 0, 24, 0, 1.0], ["R2", 24, 24, 0, 1.0], ["R3", 48, 48, 12, 1.0], [:black, 0, 12, 0, 1.0]])
  end

  it "fades in out of black, begins what runs backwards at its end, and holds wipes it knows" do
    found = conformed(<<~EDL)
      001  BL       V     C        00:00:00:00 00:00:00:00 01:00:00:00 01:00:00:00
      001  R1       V     D    008 00:00:01:00 00:00:02:00 01:00:00:00 01:00:01:00
      002  R2       V     C        00:00:05:00 00:00:06:00 01:00:01:00 01:00:02:00
      M2   R2       -24.0          00:00:05:23
      003  R2       V     C        00:00:05:00 00:00:05:00 01:00:02:00 01:00:02:00
      003  R3       V     W119 010 00:00:02:00 00:00:04:00 01:00:02:00 01:00:03:00
      M2   R3       048.0          00:00:02:00
      004  R3       V     C        00:00:05:00 00:00:05:00 01:00:03:00 01:00:03:00
      004  R4       V     W777 010 00:00:02:00 00:00:03:00 01:00:03:00 01:00:04:00
    EDL
    expect(shots(found)).to eq([[:black, 0, 1, 0, 1.0], ["R1", 25, 23, 7, 1.0], ["R2", 143, 24, 0, -1.0], ["R3", 48, 24, 10, 2.0], ["R4", 48, 24, 10, 1.0]])
    expect(found.shots.map(&:wipe)).to eq([nil, nil, nil, 119, 1])
    expect(found.notes.join).to match(/event 4: wipe 777/)
  end

  it "shortens transitions without handles, holds the last frame for them or leaves them out, and says so" do
    list = <<~EDL
      001  R1       V     C        00:00:01:00 00:00:02:00 01:00:00:00 01:00:01:00
      002  R1       V     C        00:00:02:00 00:00:02:00 01:00:01:00 01:00:01:00
      002  R2       V     D    012 00:00:01:00 00:00:02:00 01:00:01:00 01:00:02:00
    EDL
    found = %w[shorten hold leave].map { |handles| conformed(list, frames: 50, handles:) }
    expect(found.map { |one| [one.shots.last.dissolve, one.shots.last.manner.hold?, one.short] }).to eq([[2, false, 1], [12, true, 1], [0, false, 1]])
    expect(found.map(&:notes).flatten).to eq(["it is as long as that", "its last frame is held", "it is left a cut"].map { |done| "event 2: its dissolve wants 12 frames of handle after R1, which has 2; #{done}" })
    expect { conformed(list, handles: "stretch") }.to raise_error(Mordant::ParameterError, /shorten, hold, leave/)
  end
end

RSpec.describe Mordant::Cut::Recut do
  def shot(key, clip, source_in, length, **more) = Mordant::Cut::Timeline::Shot.new(key:, clip:, source_in:, length:, clip_frames: 1_000, **more)

  let(:present) { Mordant::Cut::Edit.new([shot(1, "a", 10, 20), shot(2, "b", 30, 30, dissolve: 4), shot(3, "c", 50, 10), shot(4, "d", 0, 12), shot(5, "a", 100, 24)]).shots }

  def recut(*wanted, **more) = described_class.new(present, wanted.each_with_index.map { |values, index| shot("n#{index}", *values[0, 3], **values[3].to_h) }, **more)

  def told(recut) = recut.differences.map { |one| [one.kind, one.before&.key, one.after&.key] }

  it "finds what was kept, moved, trimmed, new and gone, and leaves keys of frames with their frames" do
    found = recut(["a", 10, 20], ["d", 0, 12], ["b", 35, 28, {dissolve: 4}], ["e", 5, 9], ["a", 100, 24])
    expect(told(found)).to eq([["kept", 1, 1], ["moved", 4, 4], ["trimmed", 2, 2], ["new", nil, "n3"], ["gone", 3, nil], ["kept", 5, 5]])
    trimmed = found.differences[2]
    expect([trimmed.head, trimmed.tail, trimmed.after.clock, trimmed.moved]).to eq([5, -3, 5, false])
    expect(found.shots.map { |one| [one.key, one.record_in] }).to eq([[1, 0], [4, 20], [2, 32], ["n3", 60], [5, 69]])
  end

  it "takes a changed order for the fewest moves" do
    found = recut(["b", 30, 30], ["c", 50, 10], ["d", 0, 12], ["a", 100, 24], ["a", 10, 20])
    expect(told(found).map(&:first)).to eq(%w[trimmed kept kept kept moved])
    expect(found.differences.first.transition).to be(true)
  end

  it "gives both parts of a shot that was split its grade" do
    found = recut(["b", 30, 10], ["c", 50, 10], ["b", 45, 15])
    expect(told(found).reject { |kind, *| kind == "gone" }).to eq([["new", nil, "n0"], ["moved", 3, 3], ["trimmed", 2, 2]])
    expect(found.differences[0].from.key).to eq(2)
    expect(found.shots.map(&:clock)).to eq([0, 0, 15])
  end

  it "finds in the attic what comes back" do
    found = recut(["a", 10, 20], ["x", 40, 10], attic: [shot(9, "x", 30, 30, clock: 2)])
    expect(told(found)).to eq([["kept", 1, 1], ["new", nil, 9], ["gone", 2, nil], ["gone", 3, nil], ["gone", 4, nil], ["gone", 5, nil]])
    expect(found.shots.last.clock).to eq(12)
  end

  it "stays quick with two thousand shots of one programme" do
    many = Mordant::Cut::Edit.new(Array.new(2_000) { |index| Mordant::Cut::Timeline::Shot.new(key: index, clip: "p", source_in: index * 40, length: 40, clip_frames: 80_000) }).shots
    wanted = many.each_with_index.filter_map { |one, index| one.with(key: "n#{index}", record_in: 0) unless index == 700 }
    kinds = described_class.new(many, wanted).differences.map(&:kind).tally
    expect(kinds).to eq("kept" => 1_999, "gone" => 1)
  end
end
