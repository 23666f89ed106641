# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Colour::ACES::ToneScale do
  it "meets the points its curves are published with" do
    rendering = described_class::RENDERING
    expect(rendering.at(0.18)).to be_within(1e-4).of(4.8)
    expect(rendering.at(0.18 * 2.0**-15)).to be_within(1e-9).of(0.0001)
    expect(rendering.at(0.18 * 2.0**18)).to be_within(1e-6).of(10_000.0)
    expect(described_class::CINEMA_48.at(rendering.at(0.18))).to be_within(1e-3).of(4.8)
  end

  it "never turns back" do
    light = Numo::DFloat.cast(2.0**(Numo::DFloat.new(4000).seq / 100 - 24))
    [described_class::RENDERING, described_class::STANDARD].each do |curve|
      found = curve.call(light)
      expect((found[1..] - found[0...-1]).min).to be >= -1e-12
    end
  end

  it "is defined for no light, negative light and very much" do
    found = described_class::STANDARD.call(Numo::DFloat[-1.0, 0.0, 1.0e12])
    expect(found[0]).to eq(found[1])
    expect(found.isfinite.all?).to be_truthy
  end
end

RSpec.describe Mordant::Colour::ACES::SingleStageToneScale do
  [[1000.0, 15.0], [2000.0, 15.0], [4000.0, 15.0], [108.0, 7.2]].each do |peak, middle|
    it "shows mid grey at #{middle} cd/m2 and reaches #{peak} cd/m2" do
      tone = described_class.new(black: 0.0001, middle:, peak:)
      expect(tone.call(Numo::DFloat[0.18])[0] * (peak - 0.0001) + 0.0001).to be_within(1e-6).of(middle)
      expect(tone.call(Numo::DFloat[1.0e6])[0]).to be_within(1e-9).of(1.0)
      expect(tone.call(Numo::DFloat[1.0e-9])[0]).to be_within(1e-9).of(0.0)
    end
  end
end

RSpec.describe "Neutral light through the renderings" do
  Mordant::Colour::Rendering.all.each do |rendering|
    it "stays neutral, and rises with the light, through #{rendering.id}" do
      chain = Mordant::Pointwise::Chain.new(rendering.operations)
      light = Numo::DFloat.cast([0.002, 0.02, 0.18, 1.0, 4.0])
      found = chain.exact(Numo::NArray.vstack([light] * 3))
      expect((found[1, 1..] - found[1, 0...-1]).min).to be > 0
      ratios = (found[0, true] / found[1, true]).to_a
      expect(ratios.max - ratios.min).to be < 1e-3
    end
  end
end
