# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Steps do
  # A step of a file of its own needs nothing else.
  let(:sepia) do
    Class.new(Mordant::Steps::Step) do
      named :sepia, "Sepia"
      domain :linear
      parameter :amount, label: "amount", unit: :ratio, range: 0.0..1.0, neutral: 0.0, about: "How brown."
      parameter :tone, label: "tone", unit: :points, range: -5.0..5.0, neutral: 0.0, about: "Which brown.", channels: %i[dark bright]

      def operations(_space) = neutral? ? [] : [Mordant::Pointwise::Matrix.new(Mordant::Colour::Matrix3.diagonal([1 + amount, 1, 1 - amount]))]
    end
  end

  it "declares itself for validation, storage and an interface alike" do
    expect(sepia.to_h).to include(id: "sepia", label: "Sepia", domain: "linear", handles: [])
    expect(sepia.to_h[:parameters].last).to include(name: "tone", channels: %w[dark bright], unit: "points", suffix: "pt", min: -5.0, max: 5.0, neutral: 0.0)
    expect(sepia.new({"tone" => [1, 2]}).values).to eq(amount: 0.0, tone: [1.0, 2.0])
  end

  it "has colours of hue, chroma and lightness, whose hue goes the shorter way between keys" do
    wash = Class.new(Mordant::Steps::Step) do
      named :tinting, "Tinting"
      domain :log
      colour :towards, label: "towards", neutral: [0.0, 0.0, 0.5], about: "What colour."
    end
    expect(wash.new({towards: [350, 0.5, 0.25]}).values).to eq(towards: [350.0, 0.5, 0.25])
    expect(wash.to_h).to include(order: ["towards"], colours: [include(name: "towards", neutral: [0.0, 0.0, 0.5], ranges: include("hue" => [0.0, 360.0]))])
    {[361, 0, 0] => ["p.towards[0]", "hue, a number in 0.0..360.0", 361], [0, 0] => ["p.towards", "3 numbers (hue, chroma, lightness)", [0, 0]], [0, 0, Float::NAN] => ["p.towards[2]", "lightness, a number in 0.0..1.0", be_nan]}
      .each { |value, wanted| expect { wash.new({towards: value}, path: "p") }.to raise_error(Mordant::ParameterError) { |e| expect([e.path, e.expected, e.found]).to match(wanted) } }
    keys = Mordant::Grade::Keys.new({"towards" => [{"frame" => 0, "value" => [350, 0, 0]}, {"frame" => 4, "value" => [10, 1, 0.5]}]}, kind: wash, path: "keys")
    expect([1, 3].map { |frame| keys.at(wash.neutral, frame).towards }).to eq([[355.0, 0.25, 0.125], [5.0, 0.75, 0.375]])
  end

  it "refuses a domain or a reach that there is not, when it is declared" do
    declare = ->(&block) { Class.new(Mordant::Steps::Step, &block) }
    expect { declare.call { domain :display } }.to raise_error(ArgumentError, /log or linear values.*not on display ones/)
    expect { declare.call { reach :picture } }.to raise_error(ArgumentError, /pixel, area, time, not picture/)
  end

  it "is neutral until something is set, and back again" do
    expect(sepia.neutral).to be_neutral
    expect(sepia.new({amount: 0.1})).not_to be_neutral
    expect(sepia.new({amount: 0.0, tone: [0, 0]})).to be_neutral
  end

  it "runs by itself" do
    expect(sepia.new({amount: 0.5}).apply(Numo::SFloat[[1.0], [1.0], [1.0]]).to_a).to eq([[1.5], [1.0], [0.5]])
    expect { sepia.neutral.apply(Numo::SFloat.zeros(2, 3)) }.to raise_error(Mordant::ShapeError)
  end

  it "names the place, the range and what was found in every refusal" do
    {{"amount" => 2} => ["p.amount", "a number in 0.0..1.0", 2], {"tone" => [1]} => ["p.tone", "2 numbers (dark, bright)", [1]],
     {"tone" => [0, true]} => ["p.tone[1]", "a number in -5.0..5.0", true], {"blue" => 1} => ["p", "parameters of sepia (amount, tone)", "blue"],
     {"amount" => Complex(1, 1)} => ["p.amount", "a number in 0.0..1.0", Complex(1, 1)]}.each do |values, expected|
      expect { sepia.new(values, path: "p") }
        .to raise_error(Mordant::ParameterError) { |error| expect([error.path, error.expected, error.found]).to eq(expected) }
    end
  end

  it "gives every real step a neutral value in range, and words about each parameter" do
    described_class.all.flat_map { |step| step.parameters.values }.grep(Mordant::Declared::Parameter).each do |parameter|
      expect(parameter.range).to cover(parameter.neutral), parameter.name.to_s
      expect(parameter.about).to end_with(".")
      expect(Mordant::Declared::Parameter::UNITS).to include(parameter.unit)
    end
  end
end

RSpec.describe Mordant::Grade::Entry do
  def entry(**document) = described_class.new({"id" => "a", "kind" => "balance"}.merge(document.transform_keys(&:to_s)))

  it "is called as its step unless it has a name of its own" do
    expect([entry.name, entry(name: "Sky").name]).to eq(%w[Balance Sky])
    ["", "x" * 81, 5].each { |name| expect { entry(name:) }.to raise_error(Mordant::ParameterError, /step\.name/) }
  end

  it "acts only when it is on, has strength and is not neutral" do
    set = {parameters: {"exposure" => 1}}
    expect([entry(**set), entry(**set, enabled: false), entry(**set, strength: 0), entry].map(&:acts?)).to eq([true, false, false, false])
  end

  it "blends what is more than a curve, channel by channel" do
    space = Mordant::Colour::WorkingSpace.default
    rgb = Numo::SFloat[[0.5], [0.4], [0.3]]
    operations = entry(strength: 0.5, parameters: {"saturation" => 0.0, "exposure" => 0.5}).operations(space)
    full = Mordant::Pointwise::Chain.new(entry(parameters: {"saturation" => 0.0, "exposure" => 0.5}).operations(space)).call(rgb)
    half = Mordant::Pointwise::Chain.new(operations).call(rgb)
    expect((half - (rgb + full) * 0.5).abs.max).to be < 1e-5
    expect(Mordant::Pointwise::Chain.new(operations).exact(Numo::DFloat.cast(rgb)).to_a.flatten).to match(half.to_a.flatten.map { |x| be_within(1e-5).of(x) })
  end

  it "refuses what it does not know" do
    expect { entry(colour: 1) }.to raise_error(Mordant::ParameterError, /only id, kind, name/)
    expect { described_class.new([]) }.to raise_error(Mordant::ParameterError, /an object with/)
    expect { entry(parameters: []) }.to raise_error(Mordant::ParameterError, /step\.parameters: expected an object/)
  end
end
