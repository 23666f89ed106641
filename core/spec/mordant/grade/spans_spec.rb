# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::Span do
  def span(id, start, finish, **more) = {"id" => id, "name" => "turns round", "start" => start, "finish" => finish, **more.transform_keys(&:to_s)}

  def recipe(spans, *named, **step) = Mordant::Grade::Recipe.new("spans" => spans, "steps" => [{"id" => "a", "kind" => "balance", "strength" => 0.8, "parameters" => {"exposure" => 1.0}, "spans" => named, **step.transform_keys(&:to_s)}])

  def strength(recipe, frame) = recipe.at(frame).entries.first.strength.round(6)

  it "is there from its first frame to its last one" do
    cut = recipe([span("s", 10, 20)], "s")
    expect([9, 10, 20, 21].map { |frame| strength(cut, frame) }).to eq([0.0, 0.8, 0.8, 0.0])
    expect([9, 10].map { |frame| cut.at(frame).neutral? }).to eq([true, false])
    expect(cut.at(15)).not_to be_moving
    expect(cut.stretches(0...40)).to eq([[0...10, false], [10...21, false], [21...40, false]])
  end

  it "leaves a mark where it is at full strength while a fade before it grows, and fades on either side of both" do
    early = recipe([span("s", 30, 60, fade_in: [15, 0], fade_out: [0, 10], curve: "straight")], "s")
    expect([15, 18, 30, 60, 65, 70].map { |frame| strength(early, frame) }).to eq([0.0, 0.16, 0.8, 0.8, 0.4, 0.0])
    longer = recipe([span("s", 30, 60, fade_in: [25, 0])], "s")
    expect([5, 30].map { |frame| strength(longer, frame) }).to eq([0.0, 0.8])
    inward = recipe([span("s", 30, 60, fade_in: [0, 10], fade_out: [10, 0], curve: "straight")], "s")
    expect([30, 35, 40, 50, 55, 60].map { |frame| strength(inward, frame) }).to eq([0.0, 0.4, 0.8, 0.8, 0.4, 0.0])
    across = recipe([span("s", 30, 60, fade_in: [4, 4])], "s")
    expect([26, 28, 30, 32, 34].map { |frame| strength(across, frame) }).to eq([0.0, (0.4 * (1 - Math.cos(Math::PI / 4))).round(6), 0.4, (0.4 * (1 + Math.cos(Math::PI / 4))).round(6), 0.8])
    expect(early.stretches(0...80)).to eq([[0...16, false], [16...30, true], [30...61, false], [61...70, true], [70...80, false]])
  end

  it "drives several steps, some of which take part in others too, of which the stronger wins" do
    spans = [span("s", 10, 20, fade_out: [0, 10], curve: "straight"), span("t", 25, 40, fade_in: [10, 0], curve: "straight")]
    both = Mordant::Grade::Recipe.new("spans" => spans, "steps" => [["a", %w[s t]], ["b", %w[t]], ["c", []]].map { |id, named| {"id" => id, "kind" => "balance", "parameters" => {"exposure" => 1.0}, "spans" => named} })
    expect([12, 22, 24, 30, 50].map { |frame| both.at(frame).entries.map { |entry| entry.strength.round(3) } }).to eq([[1.0, 0.0, 1.0], [0.8, 0.7, 1.0], [0.9, 0.9, 1.0], [1.0, 1.0, 1.0], [0.0, 0.0, 1.0]])
    expect(both.to_h).to eq(Mordant::Grade::Recipe.new(JSON.parse(both.to_h.to_json)).to_h)
    expect(both.to_h["steps"].map { |step| step["spans"] }).to eq([%w[s t], %w[t], nil])
  end

  it "makes keys count only where the step is there, and counts with its owner" do
    keyed = recipe([span("s", 10, 20)], "s", keys: {"exposure" => [{"frame" => 15, "value" => 0}, {"frame" => 40, "value" => 1}]})
    expect(keyed.stretches(0...50)).to eq([[0...10, false], [10...16, false], [16...21, true], [21...50, false]])
    expect(strength(keyed.began(5), 5)).to eq(0.8)
    expect(keyed.began(5).stretches(0...50)).to eq([[0...5, false], [5...11, false], [11...16, true], [16...50, false]])
  end

  it "changes what pictures depend on, and nothing where it is not" do
    one, other = [10, 11].map { |start| recipe([span("s", start, 20)], "s") }
    expect(one.stamp).not_to eq(other.stamp)
    expect(one.at(5).stamp).to eq(other.at(5).stamp)
    codes = Mordant::Media::Codes.new(Numo::UInt16.new(3, 8).seq * 2000, width: 4, height: 2)
    none = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => []), source: "acescct").run(codes)
    expect(Mordant::Grade::Plan.new(recipe: one, source: "acescct").at(5).run(codes).rgb).to eq(none.rgb)
    expect(Mordant::Deliver::Bulk.can?(Mordant::Grade::Plan.new(recipe: one, source: "acescct").at(5))).to be(true)
  end

  it "wants no frames around where a step in time is off" do
    average = {"id" => "t", "kind" => "average", "parameters" => {"frames" => 2}, "spans" => ["s"]}
    made = Mordant::Grade::Recipe.new("spans" => [span("s", 10, 20, fade_in: [4, 0])], "steps" => [average])
    whole = Mordant::Grade::Recipe.new("steps" => [average.except("spans")]).window
    expect([made.window, made.window(0...7), made.window(0...8), made.window(20...30), made.window(21...30), made.began(5).window(0...3)]).to eq([whole, 0, whole, whole, 0, whole])
    expect(whole).to be_positive
  end

  it "keeps what a step acts on: a shape with a path and a key" do
    path = Mordant::Track::Path.new({"kind" => "position", "first" => 0, "centre" => [0, 0], "maps" => Array.new(20) { |frame| [1, 0, 0.01 * frame, 0, 1, 0, 0, 0] }, "confidence" => [1.0] * 20, "lost" => nil})
    matte = {"contributors" => [{"id" => "e", "kind" => "ellipse", "parameters" => {"radii" => [0.2, 0.2]}, "path" => {"id" => 7, "from" => 0}}]}
    found = Class.new { define_method(:path) { |_| path } }.new
    on = recipe([span("s", 5, 15, fade_in: [4, 0], curve: "straight")], "s", matte:).resolved(found)
    weights = ->(frame) { on.at(frame).entries.first.matte.weights(Mordant::Matte::Sight.new(Mordant::Grade::Moment.new(width: 200, height: 100), Mordant::Colour::WorkingSpace.default) { nil }).reshape(100, 200) }
    across = ->(plane) { (plane.sum(axis: 0) * Numo::DFloat.new(200).seq).sum / plane.sum }
    expect(across[weights[12]] - across[weights[2]]).to be_within(0.1).of(10.0)
    expect([2, 3, 12, 16].map { |frame| strength(on, frame) }).to eq([0.2, 0.4, 0.8, 0.0])
    expect(on.stretches(0...20)).to eq([[0...2, false], [2...16, true], [16...20, false]])
  end

  it "refuses what is no span, with its path" do
    refused = ->(spans, path, *named) { expect { recipe(spans, *named) }.to raise_error(Mordant::ParameterError) { |e| expect(e.path).to eq(path) } }
    refused["x", "spans"]
    refused[[span("s", 10, 9)], "spans[0].finish"]
    refused[[span("s", 1.5, 9)], "spans[0].start"]
    refused[[span("s", 1, 9), span("s", 1, 9)], "spans"]
    refused[[span("s", 1, 9, fade_in: [-1, 0])], "spans[0].fade_in"]
    refused[[span("s", 1, 9, fade_out: 4)], "spans[0].fade_out"]
    refused[[span("s", 1, 9, curve: "wavy")], "spans[0].curve"]
    refused[[span("s", 1, 9, colour: 1)], "spans[0]"]
    refused[[span("s", 1, 9)], "steps[0].spans", "t"]
  end
end
