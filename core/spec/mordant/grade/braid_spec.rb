# frozen_string_literal: true

require "spec_helper"

RSpec.describe "Steps side by side" do
  let(:codes) { Frames.codes }

  def step(id, braid: nil, kind: "balance", strength: 1.0, **parameters)
    {"id" => id, "kind" => kind, "strength" => strength, "braid" => braid, "parameters" => parameters.transform_keys(&:to_s)}.compact
  end

  def plan(*steps) = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => steps), source: "logc3-ei800-wg3")

  def run(*steps) = plan(*steps).run(codes).rgb

  it "see the same input, their changes added" do
    none = run
    warm, bright = [run(step("a", temperature: 30)), run(step("b", contrast: 1.3))]
    both = run(step("a", braid: "x", temperature: 30), step("b", braid: "x", contrast: 1.3))
    expect((both - (warm + bright - none)).abs.max).to be < 1e-4
    expect((both - run(step("a", temperature: 30), step("b", contrast: 1.3))).abs.max).to be > 1e-3
  end

  it "come out the same in either order" do
    steps = [step("a", braid: "x", saturation: 0.4, exposure: 0.3), step("b", braid: "x", kind: "zones", exposure: [0, 0, 0.4, 0, -0.5])]
    expect((run(*steps) - run(*steps.reverse)).abs.max).to be < 1e-5
  end

  it "keep of their changes what their strengths say, and nothing of what is off" do
    alone = run(step("a", temperature: 30, strength: 0.5))
    expect((run(step("a", braid: "x", temperature: 30, strength: 0.5), step("b", braid: "x", contrast: 1.3).merge("enabled" => false)) - alone).abs.max).to be < 1e-5
  end

  it "are braids only next to each other, and run in their place" do
    apart = [step("a", braid: "x", temperature: 30), step("m", exposure: 0.5), step("b", braid: "x", contrast: 1.3)]
    expect(run(*apart)).to eq(run(*apart.map { |one| one.except("braid") }))
    expect(Mordant::Grade::Recipe.new("steps" => apart).to_h["steps"].map { |one| one["braid"] }).to eq(["x", nil, "x"])
  end

  it "meet their formulas through tables, and are baked like other steps" do
    made = plan(step("a", braid: "x", temperature: 20, gamma: [1.1, 1, 1, 1]), step("b", braid: "x", contrast: 1.2, saturation: 1.2))
    expect((Numo::DFloat.cast(made.run(codes).rgb) - made.chain.exact(Numo::DFloat.cast(codes.rgb) / 65_535)).abs.mean).to be < 1e-5
    expect(made).to be_pointwise
  end

  it "must act on each pixel by itself" do
    expect { plan(step("a", braid: "x", temperature: 30), step("s", braid: "x", kind: "lens_shading", amount: [1, 0, 0, 0])) }
      .to raise_error(Mordant::ParameterError, /steps\[0\].braid: expected steps side by side that act on each pixel by itself, found "Lens shading"/)
    expect { plan(step("a").merge("braid" => 5)) }.to raise_error(Mordant::ParameterError, /steps\[0\].braid/)
  end
end
