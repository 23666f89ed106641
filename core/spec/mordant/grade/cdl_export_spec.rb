# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::CDLExport do
  def export(**parameters) = described_class.new(recipe: Frames.recipe(**parameters))

  it "is exact where slope and offset say it all" do
    {contrast: 1.3, pivot: 0.5, offset: [-0.02, 0.01, 0, 0], gain: [1.1, 1, 0.95, 1], lift: [0.02, 0, 0, -0.01]}.then do |parameters|
      found = export(**parameters)
      expect(found).to be_exact
      rgb = Numo::DFloat.new(3, 300).rand
      wanted = Mordant::Grade::Plan.new(recipe: Frames.recipe(**parameters), source: "acescct").chain.exact(rgb)
      expect((Mordant::Pointwise::Chain.new(found.cdl.operations(clamp: false)).exact(rgb) - wanted).abs.max).to be < 2e-5
    end
  end

  it "is neutral of a neutral recipe" do
    expect(export.cdl).to eq(Mordant::Colour::CDL.new)
    expect(export).to be_exact
  end

  it "finds a CDL again that was put in" do
    parameters = {"slope" => [1.2, 1.0, 0.9], "offset" => [-0.02, 0.0, 0.03], "power" => [1.1, 0.95, 1.0], "saturation" => 1.2}
    recipe = Mordant::Grade::Recipe.new("steps" => [{"id" => "c", "kind" => "cdl", "parameters" => parameters}])
    found = described_class.new(recipe:)
    expect(found).to be_exact
    expect(found.cdl.slope + found.cdl.power + [found.cdl.saturation]).to match((parameters["slope"] + parameters["power"] + [1.2]).map { |x| be_within(1e-3).of(x) })
  end

  it "comes near where it cannot be exact, and says how near" do
    found = export(exposure: 0.7, temperature: 20, gamma: [1.1, 1, 1, 1], saturation: 1.2)
    expect(found).not_to be_exact
    expect(found.error.worst).to be > found.error.mean
    expect(found.error.mean).to be < 6 / 1023.0
    expect(export(exposure: 4.0, gamma: [3.0, 1, 1, 1]).error.worst).to be > found.error.worst
  end
end
