# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Steps::Soften do
  include StepPlans

  subject { described_class.new({size: 0.02, luma: 1.0, colour: 0.6}) }

  it_behaves_like "an area step"

  def softened(rgb, width, height, **parameters)
    frame = Mordant::Frame.new(rgb, width:, height:, encoding: "acescct")
    described_class.new(parameters).process(Mordant::Colour::WorkingSpace.default).call(rgb, Mordant::Grade::Moment.of(frame))
  end

  it "is a Gaussian of the size: an edge becomes its integral" do
    edge = Numo::SFloat.zeros(3, 50, 200)
    edge[true, true, 100..] = 1.0
    out = softened(edge.reshape(3, 10_000), 200, 50, size: 0.1, luma: 1.0, colour: 1.0).reshape(3, 50, 200)
    wanted = ->(x) { 0.5 * (1 + Math.erf((x - 99.5) / (5.0 * Math.sqrt(2)))) }
    [85, 92, 97, 100, 104, 110].each { |x| expect(out[1, 25, x]).to be_within(0.01).of(wanted[x]), x.to_s }
  end

  it "leaves luma alone where colour goes, and colour's differences where luma goes" do
    frame = pictured(96, 54)
    weights = Mordant::Colour::WorkingSpace.default.luminance_weights
    luma = ->(rgb) { (0..2).map { |channel| rgb[channel, true] * weights[channel] }.reduce(:+) }
    colour = softened(frame.rgb, 96, 54, size: 0.02, colour: 1.0)
    expect((luma[colour] - luma[frame.rgb]).abs.max).to be < 1e-5
    light = softened(frame.rgb, 96, 54, size: 0.02, luma: 1.0)
    expect(((light[0, true] - light[2, true]) - (frame.rgb[0, true] - frame.rgb[2, true])).abs.max).to be < 1e-5
  end

  it "does not spread what is no number" do
    frame = pictured(96, 54)
    spoiled = frame.rgb.dup
    spoiled[0, 20 * 96 + 20] = Float::NAN
    out = softened(spoiled, 96, 54, size: 0.01, luma: 1.0)
    expect(out.isnan.where.size).to be <= 3
  end
end

RSpec.describe Mordant::Steps::Sharpen do
  include StepPlans

  subject { described_class.new({size: 0.02, luma: 1.5, colour: 0.5}) }

  it_behaves_like "an area step"

  it "adds once more what softening takes away" do
    frame = pictured(96, 54)
    made = ->(kind, amount) { Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => kind, "parameters" => {"size" => 0.02, "luma" => amount, "colour" => amount}}]), source: "acescct").apply(frame).rgb }
    expect(((made["sharpen", 1.0] + made["soften", 1.0]) * 0.5 - frame.rgb).abs.max).to be < 1e-5
  end
end

RSpec.describe Mordant::Steps::LensShading do
  subject { described_class.new({amount: [1.0, 0.2, 0, 0], centre: [0.1, -0.1]}) }

  it_behaves_like "an area step"
end

RSpec.describe Mordant::Steps::Average do
  include StepPlans

  subject { described_class.new({frames: 2}) }

  it_behaves_like "a time step"

  it "is the mean in log codes, of the frames there are" do
    frames = [0.1, 0.2, 0.6].map { |code| Mordant::Frame.new(Numo::SFloat.new(3, 4).fill(code), width: 2, height: 2, encoding: "acescct") }
    at = ->(from) { plan(described_class.new({frames: 1})).picture(Mordant::Grade::Moment.of(frames[from], around: clip(frames, from))).rgb[0, 0] }
    expect([at[0], at[1], at[2]]).to match([be_within(1e-6).of(0.15), be_within(1e-6).of(0.3), be_within(1e-6).of(0.4)])
    expect(plan(described_class.new({frames: 1})).apply(frames[2]).rgb[0, 0]).to be_within(1e-6).of(0.6)
  end
end
