# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::Common do
  let(:space) { Mordant::Colour::WorkingSpace.default }
  let(:codes) { Mordant::Media::Codes.new(Numo::UInt16.new(3, 64 * 36).seq * 9, width: 64, height: 36) }

  def plan(exposure, contrast: 1.2, strength: 1.0)
    steps = [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => exposure}},
      {"id" => "b", "kind" => "balance", "strength" => strength, "parameters" => {"contrast" => contrast}, "matte" => {"contributors" => [{"id" => "m", "kind" => "gradient"}]}}]
    Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => steps), source: "logc3-ei800-wg3", space:)
  end

  def chains(plan) = plan.sections.last.instance_variable_get(:@strands).first.sections.map(&:chain)

  it "gives plans the same chains for steps of the same values, and others for others" do
    first = plan(0.1)
    expect(chains(plan(0.2)).first).to equal(chains(first).first)
    expect(chains(plan(0.2, contrast: 1.3)).first).not_to equal(chains(first).first)
    expect(chains(plan(0.2, strength: 0.5)).first).to equal(chains(first).first) # the strand has the share
  end

  it "leaves no trace of what was made before in a picture" do
    described_class.instance_variable_get(:@chains).clear
    alone = plan(0.2, contrast: 1.3).run(codes).rgb
    described_class.instance_variable_get(:@chains).clear
    [0.7, -2.0].each { |exposure| plan(exposure, contrast: 1.3).run(codes) } # other entries of the same tables
    expect(plan(0.2, contrast: 1.3).run(codes).rgb).to eq(alone)
  end

  it "tells files apart that a step reads under one name" do
    step = Struct.new(:values, :stamps)
    made = [["v1"], ["v2"], ["v1"]].map { |stamps| described_class.operations(step.new({lut: "same"}, stamps), space, 1.0) { [Object.new] } }
    expect(made[0]).to equal(made[2])
    expect(made[0]).not_to equal(made[1])
  end

  it "keeps so many, those that were asked for last" do
    stub_const("Mordant::Grade::Common::CHAINS", 2)
    one, two, three = Array.new(3) { [Mordant::Pointwise::Matrix.new([[2.0, 0, 0], [0, 1.0, 0], [0, 0, 1.0]])] }
    kept = described_class.chain(one)
    [two, one, three].each { |list| described_class.chain(list) }
    expect(described_class.chain(one)).to equal(kept)
    expect(described_class.instance_variable_get(:@chains).size).to eq(2)
  end
end
