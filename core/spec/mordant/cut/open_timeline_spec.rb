# frozen_string_literal: true

require "spec_helper"
require "json"

RSpec.describe Mordant::Cut::OpenTimeline do
  def item(name, start, length, dissolve = 0)
    described_class::Item.new(name:, url: "plates/#{name}.exr", start:, length:, available: [start - 8, length + 16], dissolve:, metadata: {"reel" => name})
  end

  let(:timeline) { JSON.parse(described_class.write([item("a", 100, 24), item("b", 200, 48, 12)], name: "Cut", rate: Rational(24_000, 1001), start: 86_400)) }
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
