# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::Plan do
  let(:codes) { Frames.codes }
  let(:output) { Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD) }

  def plan(recipe, source = "logc3-ei800-wg3") = described_class.new(recipe:, source:)

  it "changes nothing with neutral, switched-off and powerless steps, bit for bit" do
    empty = plan(Mordant::Grade::Recipe.new("steps" => [])).run(codes)
    idle = [
      {"id" => "a", "kind" => "balance"},
      {"id" => "b", "kind" => "balance", "enabled" => false, "parameters" => {"exposure" => 2.0}},
      {"id" => "c", "kind" => "balance", "strength" => 0.0, "parameters" => {"exposure" => 2.0}},
      {"id" => "d", "kind" => "balance", "parameters" => {"pivot" => 0.6}}
    ]
    expect(plan(Mordant::Grade::Recipe.new("steps" => idle)).run(codes).rgb).to eq(empty.rgb)
  end

  it "renders a large picture in few bands that hold to what is kept to, and where margins would double the work not in smaller ones than need be" do
    uhd = Mordant::Grade::Moment.new(width: 3840, height: 2160) { nil }
    heights = ->(kind, values) { plan(Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => kind, "parameters" => values}])).bands(uhd).map(&:height) }
    narrow, wide = heights.call("soften", {"luma" => 0.5, "size" => 0.01}), heights.call("soften", {"luma" => 0.5, "size" => 0.1})
    expect([narrow.sum, narrow.size]).to match([2160, be_between(3, 5)])
    expect(wide).to eq([2160])
    expect(heights.call("balance", {"exposure" => 1.0})).to eq([2160])
  end

  it "runs the steps from top to bottom" do
    step = ->(id, **parameters) { {"id" => id, "kind" => "balance", "parameters" => parameters.transform_keys(&:to_s)} }
    grey = step.call("grey", saturation: 0.0)
    warm = step.call("warm", temperature: 60)
    spread = lambda do |steps|
      rgb = plan(Mordant::Grade::Recipe.new("steps" => steps)).run(codes).rgb
      (rgb[0, true] - rgb[2, true]).abs.max
    end
    expect(spread.call([warm, grey])).to be < 1e-5
    expect(spread.call([grey, warm])).to be > 0.03
  end

  it "fuses steps that are curves alone" do
    step = ->(id, **parameters) { {"id" => id, "kind" => "balance", "parameters" => parameters.transform_keys(&:to_s)} }
    made = plan(Mordant::Grade::Recipe.new("steps" => [step.call("a", exposure: 0.3, temperature: 8), step.call("b", contrast: 1.2), step.call("c", gamma: [1.1, 1, 0.9, 1])]))
    expect(made.chain.operations.grep(Mordant::Pointwise::Curve).size).to eq(2)
    off = (Numo::DFloat.cast(made.run(codes).rgb) - made.chain.exact(Numo::DFloat.cast(codes.rgb) / 65_535)).abs
    expect(off.mean).to be < 1e-5
  end

  it "keeps of a step's change what its strength says" do
    document = {"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 1.0, "temperature" => 30}}
    full, half = [1.0, 0.5].map { |strength| plan(Mordant::Grade::Recipe.new("steps" => [document.merge("strength" => strength)])).run(codes).rgb }
    none = plan(Mordant::Grade::Recipe.new("steps" => [])).run(codes).rgb
    expect((half - (none + full) * 0.5).abs.max).to be < 2e-5
  end

  it "meets its own formulas through tables, after the output transform too" do
    made = plan(Frames.recipe(exposure: 0.4, contrast: 1.15, temperature: -8, saturation: 1.1, lift: [0.01, 0, 0, 0.005]))
    exact = made.chain.exact(Numo::DFloat.cast(codes.rgb) / 65_535)
    off = (Numo::DFloat.cast(made.run(codes).rgb) - exact).abs
    expect(off.max).to be < 1e-4
    expect(off.mean).to be < 3e-6
  end

  it "gives a still frame what it gives decoded codes" do
    made = plan(Frames.recipe(exposure: 0.4), "srgb")
    frame = codes.frame(encoding: "srgb")
    expect((made.apply(frame).rgb - made.run(codes).rgb).abs.max).to be < 1e-4
    expect { made.apply(codes.frame(encoding: "acescct")) }.to raise_error(Mordant::ParameterError, /frame.encoding: expected "?srgb/)
  end

  it "shows a proxy as it shows the master" do
    smooth = Numo::UInt16.cast(Numo::DFloat.new(96).seq.reshape(1, 96).tile(64, 1).reshape(64 * 96) * 500 + 9_000)
    picture = Mordant::Media::Codes.new(Numo::NArray.vstack([smooth, smooth / 2 + 9_000, smooth / 3 + 12_000]), width: 96, height: 64)
    made = plan(Frames.recipe(exposure: 0.3, contrast: 1.2, temperature: 10))
    master = output.run(made.run(picture)).reduce(2)
    proxy = output.run(made.run(picture.reduce(2)))
    expect((master.rgb - proxy.rgb).abs.max).to be < 1 / 255.0
  end

  it "puts mid grey where the reference rendering does" do
    grey = Frames.flat([Mordant::Colour::WorkingSpace.default.middle] * 3)
    expect(output.run(grey).at(0, 0).to_a).to all(be_within(1e-4).of(0.38953))
  end
end

RSpec.describe Mordant::Grade::Recipe do
  def reading(document) = described_class.new(document)

  it "writes what it read, every parameter filled in" do
    recipe = Frames.recipe(exposure: 0.5)
    step = recipe.to_h["steps"].first
    expect(step["parameters"]).to include("exposure" => 0.5, "gain" => [1.0, 1.0, 1.0, 1.0])
    expect(described_class.new(recipe.to_h).to_h).to eq(recipe.to_h)
  end

  {
    "steps[0].parameters.exposure: expected a number in -10.0..10.0, found 99" => {"exposure" => 99},
    "steps[0].parameters.gain[2]: expected a number in 0.0..4.0, found nil" => {"gain" => [1, 1, nil, 1]},
    "steps[0].parameters.gain: expected 4 numbers (master, red, green, blue), found [1, 1]" => {"gain" => [1, 1]},
    "steps[0].parameters.tint: expected a number in -200.0..200.0, found NaN" => {"tint" => Float::NAN},
    "steps[0].parameters.tint: expected a number in -200.0..200.0, found \"1\"" => {"tint" => "1"}
  }.each do |message, parameters|
    it "refuses with #{message.inspect}" do
      expect { reading("steps" => [{"id" => "a", "kind" => "balance", "parameters" => parameters}]) }
        .to raise_error(Mordant::ParameterError) { |error| expect(error.message).to eq(message) }
    end
  end

  it "refuses unknown kinds, doubled ids, odd switches and more than a recipe may hold" do
    {"steps[0].kind" => [{"id" => "a", "kind" => "nothing"}], "steps" => [{"id" => "a", "kind" => "balance"}] * 2,
     "steps[0].enabled" => [{"id" => "a", "kind" => "balance", "enabled" => 1}], "steps[0].id" => [{"kind" => "balance"}],
     "steps[0].strength" => [{"id" => "a", "kind" => "balance", "strength" => 2}]}.each do |path, steps|
      expect { reading("steps" => steps) }.to raise_error(Mordant::ParameterError) { |error| expect(error.path).to eq(path) }
    end
    expect { reading("steps" => [{}] * 65) }.to raise_error(Mordant::ParameterError, /at most 64/)
    expect { described_class.from_json("{\"steps\": [NaN]}") }.to raise_error(Mordant::ParameterError, /expected JSON/)
  end
end
