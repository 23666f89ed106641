# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::Bake do
  def baked(source:, size: 33, view: Mordant::Grade::View::STANDARD, **parameters)
    plan = Mordant::Grade::Plan.new(recipe: Frames.recipe(**parameters), source:)
    described_class.new(plan:, output: Mordant::Grade::Output.for(view), size:)
  end

  let(:balance) { {exposure: 0.4, contrast: 1.1, temperature: 8, saturation: 1.15} }

  it "stands for the plan exactly on its nodes" do
    bake = baked(source: "s-log3-s-gamut3.cine", size: 17, **balance)
    nodes = Mordant::Lut::Lattice.nodes(17)
    plan = Mordant::Grade::Plan.new(recipe: Frames.recipe(**balance), source: "s-log3-s-gamut3.cine")
    wanted = Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD).chain.call(plan.chain.call(Numo::SFloat.cast(nodes)))
    found = Mordant::Pointwise::Chain.new(bake.table.operations).exact(nodes)
    expect((found - wanted).abs.max).to be < 5e-5 # a twentieth of a 10-bit code: the head has tables of its own
  end

  it "comes closer with more nodes, and says by how much" do
    errors = [17, 33, 65].map { |size| baked(source: "logc3-ei800-wg3", size:, **balance).error }
    expect(errors.map(&:mean)).to eq(errors.map(&:mean).sort.reverse)
    expect(errors[1].worst).to be > errors[1].mean
  end

  # Far out of gamut the rendering turns sharply, and any lattice is far off there.
  it "is within two 10-bit codes of exact on the colours of surfaces, with 65 nodes within half a code" do
    grey = described_class.spread(3000)[0, true] * 0.4 + 0.25
    codes = Numo::NArray.vstack([grey + 0.04, grey, grey - 0.05])
    plan = Mordant::Grade::Plan.new(recipe: Frames.recipe(**balance), source: "logc3-ei800-wg3")
    exact = Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD).chain.call(plan.chain.call(Numo::SFloat.cast(codes)))
    {33 => 2.0, 65 => 0.5}.each do |size, tolerance|
      baked = Mordant::Pointwise::Chain.new([baked(source: "logc3-ei800-wg3", size:, **balance).lattice]).exact(codes)
      expect((baked - exact).abs.mean).to be < tolerance / 1023
    end
  end

  it "states no error where a lattice is exact" do
    plan = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => []), source: "acescct")
    identity = described_class.new(plan:, output: Mordant::Grade::Output.for(Mordant::Grade::View.new(encoding: "acescct")), size: 17)
    expect(identity.error.worst).to be < 1e-6
  end

  it "shapes linear light before the lattice" do
    bake = baked(source: "acescg", view: Mordant::Grade::View.new(encoding: "acescct"))
    table = bake.table
    light = Numo::DFloat[[0.01, 0.18, 4.0], [0.02, 0.18, 2.0], [0.05, 0.18, 1.0]]
    found = Mordant::Pointwise::Chain.new(table.operations).exact(light)
    expect(table.shaper.size).to eq(described_class::SHAPER_SIZE)
    expect((found - Mordant::Colour::Transfer::Acescct.encode(light)).abs.max).to be < 1e-3
  end

  it "spreads its probes evenly" do
    mean = described_class.spread(10_000).mean(axis: 1).to_a
    expect(mean).to all(be_within(0.002).of(0.5))
  end
end
