# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Scopes::Signal do
  let(:rgb) do
    Numo::NArray.srand(5)
    (Numo::SFloat.new(3, 24_000).rand * 1.6 - 0.3).tap { |made| [Float::NAN, Float::INFINITY, -Float::INFINITY].each_with_index { |odd, at| made[at, 900 + at] = odd } }
  end
  let(:frame) { Mordant::Frame.new(rgb, width: 200, height: 120, encoding: "rec709-bt1886") }

  it "counts every pixel, those at the ends and NaN at 0" do
    counts = described_class.new(frame).counts(:red)
    red = rgb[0, true].to_a
    expect([counts.sum, counts[0], counts[1023], counts[512]])
      .to eq([24_000, red.count { |value| value.nan? || value < 0.5 / 1023 }, red.count { |value| value >= 1022.5 / 1023 }, red.count { |value| !value.nan? && value.between?(511.5 / 1023, 512.5 / 1023) }])
  end

  it "counts at once what instruments ask for one by one" do
    wanted = {"traces" => true, "vectorscope" => 2, "histogram" => true, "solid" => "difference"}
    Mordant::Pointwise::Together.count = 3
    large = Mordant::Frame.new(Numo::SFloat.hstack([rgb] * 5), width: 200, height: 600, encoding: "rec709-bt1886")
    at_once, one_by_one = Array.new(2) { Mordant::Scopes::Instruments.new(described_class.new(large), wanted) }
    Mordant::Pointwise::Together.each(at_once.work, &:call)
    at_once, one_by_one = [at_once, one_by_one].map { |made| [made.header, made.parts] }
    expect(at_once).to eq(one_by_one)
  ensure
    Mordant::Pointwise::Together.count = 1
  end

  it "refuses a zoom that there is none of before anything is shown" do
    expect { Mordant::Scopes::Instruments.new(described_class.new(frame), {"vectorscope" => 3}).work.each(&:call) }.to raise_error(Mordant::ParameterError, /zoom/)
  end
end
