# frozen_string_literal: true

require "spec_helper"
require "json"

RSpec.describe Mordant::Cut::OpenTimeline do
  rate = Rational(24_000, 1001)

  define_method(:item) do |name, start, length, record, dissolve = 0|
    code = ->(frames) { Mordant::Cut::Timecode.new(frames, rate) }
    Mordant::Cut::Written.new(name:, url: "plates/#{name}.exr", source_in: code[start], length:, available: [code[start - 8], length + 16], dissolve:, reel: name, record_in: code[86_400 + record])
  end

  let(:timeline) { JSON.parse(described_class.write([item("a", 100, 24, 0), item("b", 200, 48, 24, 12)], name: "Cut")) }
  let(:children) { timeline["tracks"]["children"].first["children"] }

  it "is a timeline of one video track, its times in frames of the cut's rate" do
    expect(timeline).to include("OTIO_SCHEMA" => "Timeline.1", "name" => "Cut")
    expect(timeline["global_start_time"]).to include("OTIO_SCHEMA" => "RationalTime.1", "value" => 86_400.0, "rate" => be_within(1e-6).of(23.976024))
    expect(timeline["tracks"]["children"].map { |track| track.values_at("OTIO_SCHEMA", "kind") }).to eq([%w[Track.1 Video]])
    expect(children[0]["source_range"].then { |range| [range["start_time"]["value"], range["duration"]["value"]] }).to eq([100.0, 24.0])
    expect(children[0]["media_reference"]).to include("OTIO_SCHEMA" => "ExternalReference.1", "target_url" => "plates/a.exr")
    expect(children[0]["media_reference"]["available_range"]["start_time"]["value"]).to eq(92.0)
  end

  it "has a dissolve before the clip it leads into, all of it after the edit" do
    expect(children.map { |child| child["OTIO_SCHEMA"] }).to eq(%w[Clip.1 Transition.1 Clip.1])
    expect(children[1]).to include("transition_type" => "SMPTE_Dissolve", "in_offset" => include("value" => 0.0), "out_offset" => include("value" => 12.0))
  end
end

RSpec.describe "A list that is written" do
  # Cuts of all kinds of shots, of three clips of 2,000 frames from 01:00:00:00 on.
  def edit(random, rate)
    shots = Array.new(14) do |index|
      black = index.positive? && random.rand < 0.15
      speed = black ? 1.0 : [1.0, 1.0, 1.0, 0.5, 2.0, -1.0, -2.0, 0.0, 1.25].sample(random:)
      length = random.rand(8..40)
      from = random.rand(300..1_500)
      Mordant::Cut::Timeline::Shot.new(key: index, clip: black ? "black" : "clip#{random.rand(3)}", clip_frames: 2_000, source_in: black ? 0 : from, length:, speed:)
    end
    shots = shots.chunk_while { |a, b| a.clip == "black" && b.clip == "black" }.map(&:first)
    shots = shots.each_with_index.map { |shot, index| (index.positive? && random.rand < 0.4) ? shot.with(dissolve: random.rand(1..6), wipe: [nil, 1, 21].sample(random:)) : shot }
    Mordant::Cut::Edit.new(shots)
  end

  def written(edit, rate)
    code = ->(frames) { Mordant::Cut::Timecode.new(frames, rate) }
    hour = code[0].class.parse("01:00:00:00", rate).frames
    edit.shots.map do |shot|
      Mordant::Cut::Written.new(reel: (shot.clip == "black") ? nil : "REEL_#{shot.clip.upcase}_230912", name: shot.clip, url: "#{shot.clip}.mov", source_in: code[(shot.clip == "black") ? 0 : hour + shot.source_in], available: [code[hour], 2_000],
        length: shot.length, record_in: code[hour + shot.record_in], speed: shot.speed, dissolve: shot.dissolve, wipe: shot.wipe, black: shot.clip == "black")
    end
  end

  def read(text, rate)
    list = Mordant::Cut::List.parse("x", text, rate:)
    hour = Mordant::Cut::Timecode.parse("01:00:00:00", list.rate).frames
    black = Mordant::Cut::Conform::Source.new(clip: "black", frames: 2_000, first: 0)
    conform = Mordant::Cut::Conform.new(list, black:) { |event| Mordant::Cut::Conform::Source.new(clip: event.clip, frames: 2_000, first: event.source_in.frames - hour, rule: event.reel) }
    [conform.shots.map { |shot| shot.to_h.slice(:clip, :source_in, :record_in, :length, :speed, :dissolve, :wipe) }, conform.placed.filter_map(&:rule).uniq.sort]
  end

  [24r, 25r, Rational(30_000, 1001)].each do |rate|
    it "gives the same cut when it is read back, at #{rate}" do
      random = Random.new(7)
      40.times do
        edit = edit(random, rate)
        wanted = edit.shots.map { |shot| shot.to_h.slice(:clip, :source_in, :record_in, :length, :speed, :dissolve, :wipe) }
        reels = edit.shots.reject { |shot| shot.clip == "black" }.map { |shot| "REEL_#{shot.clip.upcase}_230912" }.uniq.sort
        expect(read(Mordant::Cut::EDL.write("X", written(edit, rate)), rate)).to eq([wanted, reels])
        expect(read(Mordant::Cut::OpenTimeline.write(written(edit, rate), name: "X"), nil)).to eq([wanted, reels])
      end
    end
  end
end
