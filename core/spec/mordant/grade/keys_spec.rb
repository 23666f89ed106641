# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::Keys do
  def recipe(keys, **step) = Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 3.0}, "keys" => keys, **step.transform_keys(&:to_s)}])

  def key(frame, value, **more) = {"frame" => frame, "value" => value, **more.transform_keys(&:to_s)}

  def step(recipe, frame) = recipe.at(frame).entries.first.step

  let(:moving) { recipe({"exposure" => [key(10, 0.0), key(20, 1.0), key(21, -1.0)], "offset" => [key(5, [0.0, 0.0, 0.0, 0.0]), key(25, [0.2, 0.0, 0.0, 0.0])]}) }

  def exposure(frame) = step(moving, frame).exposure

  def course(*keys) = Mordant::Grade::Course.new(keys, parameter: Mordant::Steps.fetch("balance").parameters[:exposure], path: "keys")

  it "goes straight from one to the next, each parameter by its own keys, and stands still outside of them, before the first frame too" do
    expect(step(recipe({"exposure" => [key(-4, 0.0), key(4, 0.8)]}), 0).exposure).to be_within(1e-9).of(0.4)
    expect([0, 10, 12, 20, 21, 500].map { |frame| exposure(frame).round(6) }).to eq([0.0, 0.0, 0.2, 1.0, -1.0, -1.0])
    expect(step(moving, 15).offset.first).to be_within(1e-9).of(0.1)
    expect(step(recipe({"offset" => [key(0, [0.1, 0, 0, 0])]}), 7).exposure).to eq(3.0)
    expect(moving.at(15)).not_to be_moving
  end

  it "stays until the next key where one holds" do
    expect([0, 9, 10, 15, 20].map { |frame| course(key(0, 1.0, ease: "hold"), key(10, 2.0), key(20, 3.0)).at(frame) }).to eq([1.0, 1.0, 2.0, 2.5, 3.0])
  end

  it "goes smoothly as the slopes at either end say" do
    # cubic Hermite curves between 0 and 1, by hand: at rest 3t^2 - 2t^3, with slopes of 1 the straight line
    rest = course(key(0, 0.0, ease: "smooth"), key(10, 1.0))
    expect([0, 2, 5, 8, 10].map { |frame| rest.at(frame).round(6) }).to eq([0.0, 0.104, 0.5, 0.896, 1.0])
    straight = course(key(0, 0.0, ease: "smooth", out: 1), key(10, 1.0, in: 1))
    expect((0..10).map { |frame| straight.at(frame).round(9) }).to eq((0..10).map { |frame| frame / 10.0 })
    fast = course(key(0, 0.0, ease: "smooth", out: 3.0), key(10, 1.0))
    expect(fast.at(2)).to be_within(1e-9).of(0.104 + 3 * 0.2 * 0.64)
  end

  it "passes smoothly through keys on the way, rests where it turns, and never goes beyond them" do
    # on a straight line of unequal steps the mean of slopes is the line's own
    line = course(key(0, 0.0, ease: "smooth", out: 1), key(4, 0.4, ease: "smooth"), key(10, 1.0, in: 1))
    expect((0..10).map { |frame| line.at(frame).round(9) }).to eq((0..10).map { |frame| frame / 10.0 })
    turning = course(key(0, 0.0, ease: "smooth"), key(10, 1.0, ease: "smooth"), key(12, 0.9, ease: "smooth"), key(30, 5.0))
    values = (0..30).map { |frame| turning.at(frame) }
    expect(values[0..10].each_cons(2)).to all(satisfy { |a, b| b >= a })
    expect(values[12..].each_cons(2)).to all(satisfy { |a, b| b >= a })
    expect(values.max).to eq(5.0)
    # Fritsch and Butland: spans of 10 and 2, rises of 0.1 and 0.5: (14 + 22) / (14 / 0.1 + 22 / 0.5) a frame
    through = course(key(0, 0.0, ease: "smooth"), key(10, 1.0, ease: "smooth"), key(12, 2.0))
    slope = 36 / (14 / 0.1 + 22 / 0.5)
    expect(through.at(11)).to be_within(1e-9).of(1.5 + (slope * 2) / 8)
  end

  it "moves each number of a row smoothly by itself, and curves point by point" do
    row = recipe({"offset" => [key(0, [0.0, 0.0, 0.0, 0.0], ease: "smooth"), key(10, [0.1, 0.1, 0.0, 0.0], ease: "smooth"), key(20, [0.2, 0.0, 0.0, 0.0])]})
    expect(step(row, 15).offset.map { |x| x.round(6) }).to eq([0.1625, 0.05, 0.0, 0.0])
    tone = Mordant::Grade::Recipe.new("steps" => [{"id" => "c", "kind" => "curves", "keys" => {"luma" => [key(0, [[0.2, 0.2], [0.8, 0.8]]), key(10, [[0.2, 0.4], [0.6, 0.8]]), key(20, [[0.5, 0.6]])]}}])
    expect([5, 15].map { |frame| step(tone, frame).values[:luma].map { |point| point.map { |x| x.round(9) } } }).to eq([[[0.2, 0.3], [0.7, 0.8]], [[0.2, 0.4], [0.6, 0.8]]])
  end

  it "is kept in the document, and makes a step that no look-up table holds" do
    again = Mordant::Grade::Recipe.new(JSON.parse(moving.to_h.to_json))
    expect(again.to_h).to eq(moving.to_h)
    expect(recipe({"exposure" => [key(0, 1, ease: "smooth", out: 0.5)]}).to_h.dig("steps", 0, "keys")).to eq("exposure" => [{"frame" => 0, "value" => 1.0, "ease" => "smooth", "out" => 0.5}])
    expect([moving.beyond_luts.map(&:id), moving.within_luts.entries]).to eq([["a"], []])
    expect(recipe({}).to_h["steps"].first).not_to have_key("keys")
  end

  it "changes nothing while all keys are neutral, whatever stood there before" do
    expect(recipe({"exposure" => [key(0, 0), key(9, 0)]})).to be_neutral
    expect(moving).not_to be_neutral
  end

  it "moves within what is joined" do
    other = Mordant::Grade::Recipe.new("steps" => [{"id" => "b", "kind" => "balance", "parameters" => {}}])
    expect(other.followed_by(moving).at(12).entries.last.step.exposure).to be_within(1e-9).of(0.2)
  end

  it "reads keys of whole steps, as they were once, to the same values" do
    whole = ->(frame, **parameters) { {"frame" => frame, "parameters" => parameters.transform_keys(&:to_s)} }
    earlier = recipe([whole[10, exposure: 0.0, saturation: 1.2], whole[20, exposure: 1.0, saturation: 1.2], whole[21, exposure: -1.0, saturation: 1.2]])
    expect([0, 12, 20, 21, 30].map { |frame| step(earlier, frame).exposure.round(6) }).to eq([0.0, 0.2, 1.0, -1.0, -1.0])
    expect([earlier.to_h.dig("steps", 0, "keys").keys, step(earlier, 3).saturation]).to eq([["exposure"], 1.2])
    expect(recipe([whole[4, exposure: 0.5]]).to_h.dig("steps", 0).values_at("keys", "parameters").map { |one| one["exposure"] }).to eq([[{"frame" => 4, "value" => 0.5, "ease" => "straight"}], 3.0])
    expect([recipe([whole[0], whole[9]]), recipe([])].map(&:neutral?)).to eq([true, false])
    bent = {"id" => "c", "kind" => "curves", "keys" => [whole[0, luma: [[0.2, 0.2]]], whole[10, luma: [[0.2, 0.4]]]]}
    expect(Mordant::Grade::Recipe.new("steps" => [bent]).at(5).entries.first.step.values[:luma]).to eq([[0.2, 0.2]])
  end

  it "refuses what is out of order, no frame, or out of range, with its path" do
    refused = ->(keys, path) { expect { recipe(keys) }.to raise_error(Mordant::ParameterError) { |e| expect(e.path).to eq(path) } }
    at = "steps[0].keys.exposure"
    refused[{"exposure" => [key(5, 0), key(5, 0)]}, at]
    refused[{"exposure" => [key(5, 0), key(4, 0)]}, at]
    refused[{"exposure" => []}, at]
    refused[{"exposure" => [key(20_000_000, 0)]}, "#{at}[0].frame"]
    refused[{"exposure" => [key(1.5, 0)]}, "#{at}[0].frame"]
    refused[{"exposure" => [{"frame" => 1}]}, "#{at}[0].value"]
    refused[{"exposure" => [key(0, Float::NAN)]}, "#{at}[0].value"]
    refused[{"exposure" => [key(0, 0), key(1, 1e9)]}, "#{at}[1].value"]
    refused[{"exposure" => [key(0, 0, ease: "bounce")]}, "#{at}[0].ease"]
    refused[{"exposure" => [key(0, 0, out: 3.5)]}, "#{at}[0].out"]
    refused[{"exposure" => [key(0, 0, tangent: 1)]}, "#{at}[0]"]
    refused[{"sparkle" => [key(0, 0)]}, "steps[0].keys"]
    refused["x", "steps[0].keys"]
    refused[[{"frame" => 5, "parameters" => {}}] * 2, "steps[0].keys"]
  end
end

RSpec.describe Mordant::Grade::Recipe do
  it "says where it stands still and where it moves" do
    moving = ->(id, *frames) { {"id" => id, "kind" => "balance", "keys" => {"exposure" => frames.each_with_index.map { |frame, index| {"frame" => frame, "value" => index} }}} }
    stretches = ->(frames, *steps) { described_class.new("steps" => steps).stretches(frames) }
    expect(stretches[0...10, {"id" => "a", "kind" => "balance"}]).to eq([[0...10, false]])
    expect(stretches[0...40, moving["a", 10, 20]]).to eq([[0...11, false], [11...20, true], [20...40, false]])
    expect(stretches[-4...40, moving["a", 10, 15, 20], moving["b", 18, 30], moving["c", 35, 35 + 1]]).to eq([[-4...11, false], [11...30, true], [30...36, false], [36...40, false]])
    expect(stretches[12...18, moving["a", 10, 20]]).to eq([[12...18, true]])
    expect(stretches[0...40, moving["a", 10, 20].merge("enabled" => false)]).to eq([[0...40, false]])
    expect(described_class.new("steps" => [moving["a", 10, 20]]).began(8).stretches(0...20)).to eq([[0...3, false], [3...12, true], [12...20, false]])
  end
end
