# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Rendition::Corrections do
  let(:peaks) { {"small" => 100.0, "middle" => 400.0, "large" => 600.0} }

  def corrections(*steps) = described_class.new("steps" => steps)

  def one(id, strength: 1.0, enabled: true, **values) = {"id" => id, "kind" => "rendition", "strength" => strength, "enabled" => enabled, "parameters" => values.transform_keys(&:to_s)}

  def colour_of(made, id) = made.one_at(Mordant::Rendition::Aim.new(peak: peaks.fetch(id), black: 0.0, of: nil, target: id), peaks, 1000.0, 0).colour

  it "takes a target's own, and else what lies between its neighbours by the logarithm of their peaks" do
    both = corrections(one("small", colour: 0.5), one("large", colour: 1.4))
    expect(colour_of(both, "small")).to eq(0.5)
    share = Math.log2(4) / Math.log2(6)
    expect(colour_of(both, "middle")).to be_within(1e-12).of(0.5 + 0.9 * share)
  end

  it "fades to nothing towards the peak of the HDR picture, and keeps the smallest's below it" do
    smallest = corrections(one("small", colour: 0.5))
    expect(colour_of(smallest, "large")).to be_within(1e-12).of(1 - 0.5 * (1 - Math.log2(6) / Math.log2(10)))
    expect(colour_of(corrections(one("large", colour: 0.5)), "small")).to eq(0.5)
    expect(colour_of(corrections, "small")).to eq(1.0)
    expect(colour_of(corrections(one("small", enabled: false, colour: 0.5)), "middle")).to eq(1.0)
  end

  it "keeps as much as its strength says, and moves by keys" do
    expect(colour_of(corrections(one("small", strength: 0.4, colour: 0.5)), "small")).to be_within(1e-12).of(0.8)
    keyed = corrections({"id" => "all", "kind" => "rendition_all", "keys" => {"brightness" => [{"frame" => 0, "value" => 0.0}, {"frame" => 10, "value" => 0.4}]}})
    expect([0, 5, 10].map { |frame| keyed.all_at(frame).brightness }).to match([0.0, be_within(1e-12).of(0.2), 0.4])
  end

  it "holds corrections alone, one of all targets, and nothing that acts on parts of a picture" do
    {[one("all")] => "steps[0].id", [{"id" => "x", "kind" => "rendition_all"}] => "steps[0].id", [{"id" => "b", "kind" => "balance"}] => "steps[0].kind",
     [one("small").merge("matte" => {"contributors" => [], "strength" => 1.0})] => "steps[0]", [one("small", colour: Float::NAN)] => "steps[0].parameters.colour", [one("small", hue: [0, 0])] => "steps[0].parameters.hue"}.each do |steps, path|
      expect { corrections(*steps) }.to raise_error(Mordant::ParameterError) { |error| expect(error.path).to eq(path) }
    end
    expect { Mordant::Grade::Recipe.new("steps" => [one("small")]) }.to raise_error(Mordant::ParameterError, /kind/)
    expect(Mordant::Rendition.recipe("steps" => [one("small")])).to be_a(described_class)
  end
end
