# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Steps::LensShading do
  def shaded(rgb, width, height, **parameters) = described_class.new(parameters).process(Mordant::Colour::WorkingSpace.default).call(rgb, Mordant::Grade::Moment.of(Mordant::Frame.new(rgb, width:, height:, encoding: "acescg")))

  def flat(width, height) = Numo::SFloat.ones(3, width * height)

  it "gives the corners back the light that is said, and leaves the centre" do
    out = shaded(flat(101, 51), 101, 51, amount: [1.0, 0.0, 0.5, 0.0])
    centre, corner = out[true, 25 * 101 + 50].to_a, out[true, 0].to_a
    expect(centre).to all(be_within(1e-5).of(1.0))
    expect(corner).to match([be_within(0.05).of(2.0), be_within(0.08).of(2.0**1.5), be_within(0.05).of(2.0)])
  end

  it "takes back what a lens did" do
    dimmed = shaded(flat(64, 36), 64, 36, amount: [-0.8, 0.1, 0, 0], shape: 3.0, centre: [0.1, -0.05])
    expect((shaded(dimmed, 64, 36, amount: [0.8, -0.1, 0, 0], shape: 3.0, centre: [0.1, -0.05]) - 1.0).abs.max).to be < 1e-5
  end

  it "shows a proxy as it shows the master" do
    master = Mordant::Frame.new(shaded(flat(96, 54), 96, 54, amount: [1.5, 0, 0, 0]), width: 96, height: 54, encoding: "acescg").reduce(3)
    proxy = shaded(flat(32, 18), 32, 18, amount: [1.5, 0, 0, 0])
    expect((master.rgb - proxy).abs.max).to be < 0.02
  end

  it "is neutral whatever its shape, while its amount is zero" do
    expect(described_class.new({shape: 4.0, centre: [0.2, 0.2]})).to be_neutral
  end

  context "in a plan" do
    let(:document) { {"steps" => [{"id" => "s", "kind" => "lens_shading", "name" => "Old zoom", "parameters" => {"amount" => [1, 0, 0, 0]}}, {"id" => "b", "kind" => "balance", "parameters" => {"exposure" => -0.5}}]} }
    let(:recipe) { Mordant::Grade::Recipe.new(document) }
    let(:codes) { Mordant::Media::Codes.new(Numo::UInt16.new(3, 64 * 36).fill(30_000), width: 64, height: 36) }

    it "acts between pointwise steps, at its strength" do
      plan = ->(strength) { Mordant::Grade::Plan.new(source: "logc3-ei800-wg3", recipe: Mordant::Grade::Recipe.new("steps" => [document["steps"][0].merge("strength" => strength), document["steps"][1]])) }
      none, half, full = [0.0, 0.5, 1.0].map { |strength| Numo::DFloat.cast(plan[strength].run(codes).rgb[0, [0, 18 * 64 + 32]]) }
      light = ->(pair) { Mordant::Colour::Transfer::Acescct.decode(pair).to_a }
      expect(light[full][0] / light[none][0]).to be_within(0.06).of(2.0)
      expect(light[full][1] / light[none][1]).to be_within(0.01).of(1.0)
      expect(light[half][0]).to be_within(1e-4).of((light[none][0] + light[full][0]) / 2)
    end

    it "is named as what a look-up table cannot hold" do
      expect(recipe.beyond_luts.map(&:name)).to eq(["Old zoom"])
      plan = Mordant::Grade::Plan.new(recipe:, source: "logc3-ei800-wg3")
      expect { plan.chain }.to raise_error(Mordant::ParameterError, /a look-up table can hold, found "Old zoom"/)
      expect(Mordant::Grade::Plan.new(recipe: recipe.within_luts, source: "logc3-ei800-wg3")).to be_pointwise
    end
  end
end
