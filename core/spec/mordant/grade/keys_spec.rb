# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::Keys do
  def recipe(keys, **step) = Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 3.0}, "keys" => keys, **step.transform_keys(&:to_s)}])

  def key(frame, **parameters) = {"frame" => frame, "parameters" => parameters.transform_keys(&:to_s)}

  let(:moving) { recipe([key(10, exposure: 0.0, offset: [0.0, 0.0, 0.0, 0.0]), key(20, exposure: 1.0, offset: [0.1, 0.0, 0.0, 0.0]), key(21, exposure: -1.0)]) }

  def exposure(frame) = moving.at(frame).entries.first.step.exposure

  it "goes straight from one to the next, and stands still outside of them, before the first frame too" do
    expect(recipe([key(-4, exposure: 0.0), key(4, exposure: 0.8)]).at(0).entries.first.step.exposure).to be_within(1e-9).of(0.4)
    expect([0, 10, 12, 20, 21, 500].map { |frame| exposure(frame).round(6) }).to eq([0.0, 0.0, 0.2, 1.0, -1.0, -1.0])
    expect(moving.at(15).entries.first.step.offset.first).to be_within(1e-9).of(0.05)
    expect(moving.at(15)).not_to be_moving
  end

  it "is kept in the document, and makes a step that no look-up table holds" do
    again = Mordant::Grade::Recipe.new(JSON.parse(moving.to_h.to_json))
    expect(again.to_h).to eq(moving.to_h)
    expect([moving.beyond_luts.map(&:id), moving.within_luts.entries]).to eq([["a"], []])
    expect(recipe([]).to_h["steps"].first).not_to have_key("keys")
  end

  it "changes nothing while all keys are neutral, whatever stood there before" do
    expect(recipe([key(0), key(9)])).to be_neutral
    expect(moving).not_to be_neutral
  end

  it "moves within what is joined" do
    other = Mordant::Grade::Recipe.new("steps" => [{"id" => "b", "kind" => "balance", "parameters" => {}}])
    expect(other.followed_by(moving).at(12).entries.last.step.exposure).to be_within(1e-9).of(0.2)
  end

  it "refuses what is out of order, no frame, or out of range, with its path" do
    refused = ->(keys, path) { expect { recipe(keys) }.to raise_error(Mordant::ParameterError) { |e| expect(e.path).to eq(path) } }
    refused[[key(5), key(5)], "steps[0].keys"]
    refused[[key(5), key(4)], "steps[0].keys"]
    refused[[key(20_000_000)], "steps[0].keys"]
    refused[[{"frame" => 1.5, "parameters" => {}}], "steps[0].keys"]
    refused["x", "steps[0].keys"]
    refused[[key(0), key(1, exposure: 1e9)], "steps[0].keys[1].parameters.exposure"]
  end
end

RSpec.describe Mordant::Grade::Recipe do
  it "says where it stands still and where it moves" do
    moving = ->(id, *frames) { {"id" => id, "kind" => "balance", "keys" => frames.each_with_index.map { |frame, index| {"frame" => frame, "parameters" => {"exposure" => index}} }} }
    stretches = ->(frames, *steps) { described_class.new("steps" => steps).stretches(frames) }
    expect(stretches[0...10, {"id" => "a", "kind" => "balance"}]).to eq([[0...10, false]])
    expect(stretches[0...40, moving["a", 10, 20]]).to eq([[0...11, false], [11...20, true], [20...40, false]])
    expect(stretches[-4...40, moving["a", 10, 15, 20], moving["b", 18, 30], moving["c", 35, 35 + 1]]).to eq([[-4...11, false], [11...30, true], [30...36, false], [36...40, false]])
    expect(stretches[12...18, moving["a", 10, 20]]).to eq([[12...18, true]])
    expect(stretches[0...40, moving["a", 10, 20].merge("enabled" => false)]).to eq([[0...40, false]])
    expect(described_class.new("steps" => [moving["a", 10, 20]]).began(8).stretches(0...20)).to eq([[0...3, false], [3...12, true], [12...20, false]])
  end
end
