# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Steps::Zones do
  subject { described_class.new({exposure: [0.5, -0.3, 0.1, 0.4, -1.0], temperature: [10, 0, -5, 0, 20], saturation: [0.5, 1, 1.2, 1, 0.8]}) }

  it_behaves_like "a pointwise step" do
    let(:rgb) { Numo::SFloat[[0.001, 0.0, 0.18, 0.4], [0.5, 1.0, 2.0, 0.4], [0.02, 0.9, 4.0, 0.4]] }
  end

  let(:space) { Mordant::Colour::WorkingSpace.default }

  def run(step, light) = Mordant::Pointwise::Chain.new(described_class.new(step).operations(space)).exact(Numo::DFloat[[light]] * Numo::DFloat.ones(3, 1))[true, 0].to_a

  it "has weights that add up to one at every tone" do
    light = 0.18 * 2.0**(Numo::DFloat.new(500).seq / 20 - 14)
    [{}, {limits: [-2, 1, 0, 2], softness: 4.0}, {softness: 0.1}].each do |step|
      weights = described_class.new(step).weights_at(light)
      expect((weights.reduce(:+) - 1.0).abs.max).to be < 1e-12
      expect(weights.map(&:min).min).to be >= -1e-12
    end
  end

  it "brightens one zone and leaves the others" do
    bright = {exposure: [0, 0, 0, 0, -1]}
    expect(run(bright, 0.18 * 2**5)).to all(be_within(1e-3).of(0.18 * 2**4))
    [-7, -3, 0].each { |stops| expect(run(bright, 0.18 * 2.0**stops)).to all(be_within(1e-6).of(0.18 * 2.0**stops)) }
    moved = {exposure: [0, 0, 0, 0, -1], limits: [0, 0, 0, 4]}
    expect(run(moved, 0.18 * 2**5)[0]).to be > 0.18 * 2**4.9
  end

  it "colours one zone, grey keeping its place elsewhere" do
    red, _, blue = run({temperature: [0, 0, 50, 0, 0]}, 0.12)
    expect(Math.log2(red / blue)).to be_within(0.01).of(1.0)
    expect(run({temperature: [0, 0, 50, 0, 0]}, 4.0).uniq.size).to eq(1)
  end

  it "refuses limits out of their order" do
    expect { described_class.new({limits: [4, 0, 0, 0]}, path: "p") }.to raise_error(Mordant::ParameterError, /p.limits: expected limits in their order/)
  end
end
