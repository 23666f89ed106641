# frozen_string_literal: true

require "spec_helper"

RSpec.describe "A step with a matte", type: :core do
  let(:ellipse) { {"id" => "e", "kind" => "ellipse", "mode" => "add", "parameters" => {"radii" => [0.3, 0.2], "softness" => 0.1}} }
  let(:lights) { {"id" => "l", "kind" => "luminance", "mode" => "intersect", "parameters" => {"low" => 0.4}} }
  let(:picture) do
    Numo::NArray.srand(7)
    Mordant::Frame.new(Numo::SFloat.new(3, 96 * 54).rand, width: 96, height: 54, encoding: "acescct")
  end

  def step(id, kind, matte: nil, **parameters) = {"id" => id, "kind" => kind, "parameters" => parameters.transform_keys(&:to_s), **(matte ? {"matte" => matte} : {})}

  def plan(*steps) = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => steps), source: "acescct")

  it "keeps so much of the change as the matte says" do
    matte = {"contributors" => [ellipse], "strength" => 0.5}
    none, all, some = plan.apply(picture).rgb, plan(step("a", "balance", exposure: 1.0)).apply(picture).rgb, plan(step("a", "balance", matte:, exposure: 1.0)).apply(picture).rgb
    weights = Mordant::Matte::Composite.new(matte).weights(Mordant::Matte::Sight.new(Mordant::Grade::Moment.of(picture), Mordant::Colour::WorkingSpace.default) { none })
    expect((some - (none + (all - none) * weights.reshape(1, picture.size))).abs.max).to be < 1e-4
    expect([weights[27 * 96 + 48], weights[0]]).to eq([0.5, 0.0])
    expect(some[true, 0]).to eq(none[true, 0])
  end

  it "acts everywhere without contributors, and is then what a step without a matte is, bit for bit" do
    plain = plan(step("a", "balance", exposure: 1.0))
    [{"contributors" => []}, {"contributors" => [ellipse.merge("mode" => "out")]}].each do |matte|
      with = plan(step("a", "balance", matte:, exposure: 1.0))
      expect([with.apply(picture).rgb, with.pointwise?]).to eq([plain.apply(picture).rgb, true])
    end
  end

  it "reaches as far as the step does, and shows no boundary of windows or bands, to the bit" do
    made = plan(step("a", "soften", matte: {"contributors" => [ellipse, lights]}, size: 0.05, luma: 1.0, colour: 1.0), step("b", "balance", matte: {"contributors" => [lights.merge("mode" => "subtract")]}, exposure: 0.5),
      step("c", "sharpen", size: 0.01, luma: 1.0))
    moment = Mordant::Grade::Moment.of(picture)
    expect(made.margin(moment)).to be > 8
    whole = made.picture(moment).rgb
    window = Mordant::Grade::Window.new(left: 20, top: 13, width: 40, height: 17)
    expect(made.picture(moment.at(window)).rgb).to eq(window.cut(whole, moment.window))
    bands = [0, 20, 31].zip([20, 11, 23]).map { |top, height| Mordant::Grade::Window.new(left: 0, top:, width: 96, height:) }
    expect(made.picture(moment, bands:).rgb).to eq(whole)
  end

  it "meets others side by side, each with its own" do
    left, right = [-0.4, 0.4].map { |across| {"contributors" => [ellipse.merge("parameters" => {"centre" => [across, 0], "radii" => [0.2, 0.2]})]} }
    braid = [step("a", "balance", matte: left, exposure: 1.0), step("b", "balance", matte: right, exposure: -1.0)].map { |one| one.merge("braid" => "x") }
    one, both = plan(braid[0].except("braid")).apply(picture).rgb, plan(*braid).apply(picture).rgb
    at = ->(rgb, across) { rgb[0, 27 * 96 + 48 + (across * 54).round] }
    none = plan.apply(picture).rgb
    expect([at[both, -0.4] - at[none, -0.4], at[both, 0.4] - at[none, 0.4]]).to match([be > 0.03, be < -0.03])
    expect(at[both, -0.4]).to be_within(1e-6).of(at[one, -0.4])
  end

  it "is no step that a look-up table can hold, and is named as such" do
    made = plan(step("a", "balance", matte: {"contributors" => [ellipse]}, exposure: 1.0))
    expect([made.pointwise?, made.recipe.beyond_luts.map(&:name)]).to eq([false, ["Balance"]])
    expect { made.chain }.to raise_error(Mordant::ParameterError, /a look-up table can hold, found "Balance"/)
  end

  it "keeps its matte in its document, with keys and parameters" do
    document = step("a", "balance", matte: {"contributors" => [ellipse, lights], "strength" => 0.25}, exposure: 1.0)
    again = Mordant::Grade::Recipe.new(Mordant::Grade::Recipe.new("steps" => [document]).to_h).to_h["steps"][0]["matte"]
    expect(again["contributors"].map { |one| one.values_at("id", "kind", "mode") }).to eq([%w[e ellipse add], %w[l luminance intersect]])
    expect([again["strength"], again["contributors"][0]["parameters"]]).to match([0.25, include("radii" => [0.3, 0.2], "turn" => 0.0)])
    shown = Mordant::Grade::Acting.new(Mordant::Grade::Recipe.new("steps" => [document]), id: "a") { |recipe| Mordant::Grade::Plan.new(recipe:, source: "acescct") }
    codes = Mordant::Media::Codes.new(Numo::UInt16.cast((picture.rgb * 65_535).round), width: 96, height: 54)
    expect(shown.weights(Mordant::Grade::Moment.of(codes)).max).to be_within(1e-6).of(0.25)
  end

  it "says where a document is wrong" do
    {
      {"contributors" => [ellipse, ellipse]} => ["steps[0].matte.contributors", "ids used once", "e"],
      {"contributors" => [ellipse.merge("mode" => "xor")]} => ["steps[0].matte.contributors[0].mode", "add, subtract, intersect, out", "xor"],
      {"contributors" => [ellipse.merge("kind" => "star")]} => ["steps[0].matte.contributors[0].kind", "one of clip, ellipse, gradient, key, linked, luminance, outline, plane, samples", "star"],
      {"contributors" => [lights.merge("parameters" => {"low" => 0.5, "high" => 0.2})]} => ["steps[0].matte.contributors[0].parameters.high", "at least 0.5, where the range begins", 0.2],
      {"contributors" => [lights.merge("parameters" => {"low" => Float::NAN})]} => ["steps[0].matte.contributors[0].parameters.low", "a number in -1.0..4.0", be_nan],
      {"contributors" => {}} => ["steps[0].matte.contributors", "a list of at most 64 contributors", {}],
      {"strength" => 2} => ["steps[0].matte.strength", "a number in 0.0..1.0", 2],
      {"holes" => 1} => ["steps[0].matte", "only contributors, refinements, strength", "holes"],
      [] => ["steps[0].matte", "an object with contributors, refinements, strength", []]
    }.each do |matte, wanted|
      expect { plan(step("a", "balance", exposure: 1.0).merge("matte" => matte)) }.to raise_error(Mordant::ParameterError) { |e| expect([e.path, e.expected, e.found]).to match(wanted) }
    end
  end
end

RSpec.describe Mordant::Matte do
  let(:space) { Mordant::Colour::WorkingSpace.default }

  def weights(kind, width = 180, height = 90, rgb: nil, **parameters)
    frame = Mordant::Frame.new(rgb || Numo::SFloat.zeros(3, width * height), width:, height:, encoding: "acescct")
    described_class.fetch(kind).new(parameters).weights(described_class::Sight.new(Mordant::Grade::Moment.of(frame), space) { frame.rgb }).reshape(height, width)
  end

  it "puts an ellipse as added in the middle, a third of the height in radius, half on its line" do
    made = weights("ellipse", 181, 91)
    expect([made[45, 90], made[45, 90 + 25], made[45, 90 - 25], made[45 + 25, 90], made[45, 90 + 36], made[0, 0]]).to eq([1.0, 1.0, 1.0, 1.0, 0.0, 0.0])
    line = 91 / 3.0
    below, above = made[45, 90 + line.floor], made[45, 90 + line.ceil]
    expect([below, above, (below + above) / 2]).to match([be > 0.5, be < 0.5, be_within(0.1).of(0.5)])
  end

  it "turns, moves and stretches an ellipse, in shares of the height" do
    made = weights("ellipse", centre: [0.5, -0.2], radii: [0.4, 0.1], turn: 90.0, softness: 0.0)
    across, down = 90 + 45, 45 - 18
    expect([made[down, across], made[down + 30, across], made[down + 42, across], made[down, across + 8], made[down, across + 12]]).to match([1.0, 1.0, 0.0, be_within(1e-5).of(1.0), 0.0])
  end

  it "is as large on a proxy as on the master" do
    large = weights("ellipse", 360, 180, radii: [0.3, 0.2], softness: 0.05, turn: 30)
    small = weights("ellipse", 120, 60, radii: [0.3, 0.2], softness: 0.05, turn: 30)
    expect((large.reshape(60, 3, 120, 3).mean(1, 3) - small).abs.max).to be < 0.03
  end

  it "takes a range of luma on the tone axis, soft at both ends" do
    tones = [0.0, 0.25, 0.3, 0.35, 0.5, 0.7, 0.8, 0.9, 2.0]
    codes = Numo::SFloat.cast(tones) * (space.white - space.black) + space.black
    made = weights("luminance", tones.size, 1, rgb: Numo::NArray.vstack([codes] * 3), low: 0.3, high: 0.8, low_softness: 0.1, high_softness: 0.2).to_a.flatten
    expect(made).to match([0.0, 0.0, be_within(1e-3).of(0.5), be_within(1e-3).of(1.0), 1.0, be_within(1e-3).of(1.0), be_within(1e-3).of(0.5), be_within(1e-3).of(0.0), 0.0])
  end

  it "adds, subtracts and intersects in order, and leaves out what is out" do
    light = ->(id, mode, low) { {"id" => id, "kind" => "luminance", "mode" => mode, "parameters" => {"low" => low, "low_softness" => 0.0}} }
    tones = Numo::SFloat[0.1, 0.4, 0.6, 0.9] * (space.white - space.black) + space.black
    frame = Mordant::Frame.new(Numo::NArray.vstack([tones] * 3), width: 4, height: 1, encoding: "acescct")
    made = ->(*parts) { Mordant::Matte::Composite.new({"contributors" => parts}).weights(Mordant::Matte::Sight.new(Mordant::Grade::Moment.of(frame), space) { frame.rgb }).to_a }
    expect(made[light["a", "add", 0.3]]).to eq([0, 1, 1, 1])
    expect(made[light["a", "add", 0.3], light["b", "subtract", 0.5]]).to eq([0, 1, 0, 0])
    expect(made[light["a", "subtract", 0.5]]).to eq([1, 1, 0, 0])
    expect(made[light["a", "intersect", 0.5], light["b", "add", 0.8]]).to eq([0, 0, 1, 1])
    expect(made[light["a", "add", 0.3], light["b", "subtract", 0.5], light["c", "add", 0.8]]).to eq([0, 1, 0, 1])
    expect(made[light["a", "add", 0.3], light["b", "out", 0.5]]).to eq([0, 1, 1, 1])
  end
end
