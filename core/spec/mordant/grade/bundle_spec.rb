# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::Bundle do
  def recipe(steps, bundle)
    Mordant::Grade::Recipe.new("steps" => steps.each_with_index.map { |step, at| {"id" => at.to_s, "bundle" => "b", **step} }, "bundles" => [{"id" => "b", **bundle}])
  end

  let(:codes) { Mordant::Media::Codes.new(Numo::UInt16.new(3, 96 * 54).seq(0) * 4 + 2000, width: 96, height: 54) }

  def picture(made) = Mordant::Grade::Plan.new(recipe: made.at(3), source: "acescct").run(codes).rgb

  let(:grain) { {"kind" => "grain", "parameters" => {"amount" => 2.0}} }
  let(:bloom) { {"kind" => "bloom", "parameters" => {"amount" => 0.4, "size" => 0.03}} }
  let(:warm) { {"kind" => "balance", "parameters" => {"exposure" => 1.0}} }

  it "changes nothing, bit for bit, switched off or with no strength" do
    plain = picture(Mordant::Grade::Recipe.new("steps" => []))
    [{"enabled" => false}, {"strength" => 0}].each do |bundle|
      made = recipe([bloom, grain, warm], bundle)
      expect(made.neutral?).to be(true)
      expect(made.moving?).to be(true)
      expect(picture(made)).to eq(plain)
    end
  end

  it "scales each step in its own terms, and others by what they change" do
    {bloom => bloom.merge("parameters" => {"amount" => 0.1, "size" => 0.03}), grain => {"kind" => "grain", "parameters" => {"amount" => 0.5}}, warm => warm.merge("strength" => 0.25)}.each do |step, scaled|
      own = Mordant::Grade::Recipe.new("steps" => [{"id" => "0", **scaled}])
      expect((picture(recipe([step], "strength" => 0.25)) - picture(own)).abs.max).to be < 1e-6
    end
    half, whole = [0.5, 1.0].map { |strength| picture(recipe([grain], "strength" => strength)) - picture(recipe([], {})) }
    expect(half.stddev / whole.stddev).to be_within(0.02).of(0.5)
  end

  it "is scaled where its steps have mattes, keys and spans" do
    matte = {"contributors" => [{"id" => "e", "kind" => "ellipse", "mode" => "add", "parameters" => {}}]}
    keys = {"amount" => [{"frame" => 0, "value" => 0.0}, {"frame" => 6, "value" => 0.8}]}
    own = Mordant::Grade::Recipe.new("steps" => [{"id" => "0", **bloom, "parameters" => {"amount" => 0.2, "size" => 0.03}, "matte" => matte}])
    expect((picture(recipe([{**bloom, "keys" => keys, "matte" => matte}], "strength" => 0.5)) - picture(own)).abs.max).to be < 1e-6
  end

  it "keeps its neighbours, and is kept as a document" do
    document = recipe([bloom, warm], "name" => "Film", "strength" => 0.8).to_h
    expect(Mordant::Grade::Recipe.new(document).to_h).to eq(document)
    expect(document["bundles"]).to eq([{"id" => "b", "name" => "Film", "enabled" => true, "strength" => 0.8}])
    expect(recipe([bloom], {}).stamp).not_to eq(recipe([bloom], {"strength" => 0.5}).stamp)
  end

  it "refuses what cannot be one, with its path" do
    torn = [{"id" => "0", "bundle" => "b", **bloom}, {"id" => "1", **warm}, {"id" => "2", "bundle" => "b", **grain}]
    beside = [{"id" => "0", "bundle" => "b", "braid" => "x", **warm}, {"id" => "1", "braid" => "x", **warm}]
    [[torn, [{"id" => "b"}], "steps[2].bundle"], [beside, [{"id" => "b"}], "steps[1].bundle"], [[{"id" => "0", "bundle" => "c", **warm}], [{"id" => "b"}], "steps[0].bundle"],
      [[], [{"id" => "b"}, {"id" => "b"}], "bundles"], [[], [{"id" => "b", "strength" => 1.5}], "bundles[0].strength"], [[], [{"id" => "b", "enabled" => 1}], "bundles[0].enabled"]].each do |steps, bundles, path|
      expect { Mordant::Grade::Recipe.new("steps" => steps, "bundles" => bundles) }.to raise_error(Mordant::ParameterError) { |error| expect(error.path).to eq(path) }
    end
  end
end
