# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Steps::CDL do
  subject { described_class.new({slope: [1.1, 1.0, 0.9], offset: [0.01, 0.0, -0.01], power: [1.05, 1.0, 0.95], saturation: 1.1}) }

  it_behaves_like "a pointwise step"

  it "does what the CDL does, open or clamped" do
    rgb = Numo::SFloat.cast(Numo::DFloat.new(3, 200).rand * 1.2 - 0.1)
    [["open", false], ["clamped", true]].each do |limits, clamp|
      step = described_class.new({slope: [1.1, 1.0, 0.9], limits:})
      wanted = Mordant::Pointwise::Chain.new(Mordant::Colour::CDL.new(slope: [1.1, 1.0, 0.9]).operations(clamp:)).exact(Numo::DFloat.cast(rgb))
      expect((step.apply(rgb) - wanted).abs.max).to be < 1e-5
    end
  end

  it "counts in the encoding its numbers were made in" do
    code = Mordant::Colour::Conversion.new(from: "logc3-ei800-wg3", to: "acescct").chain.call(Numo::SFloat[[0.4], [0.4], [0.4]])
    out = described_class.new({offset: [0.1, 0.1, 0.1], within: "logc3-ei800-wg3"}).apply(code)
    wanted = Mordant::Colour::Conversion.new(from: "logc3-ei800-wg3", to: "acescct").chain.call(Numo::SFloat[[0.5], [0.5], [0.5]])
    expect((out - wanted).abs.max).to be < 1e-4
  end
end
