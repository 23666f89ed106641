# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Scopes::Touch do
  # Of 10,000 pixels, so many of each 10-bit code.
  def reading(places, counts)
    codes = counts.flat_map { |code, count| [code] * count }
    frame = Mordant::Frame.new(Numo::SFloat.cast([codes.map { |code| code / 1023.0 }] * 3), width: 100, height: 100, encoding: "srgb")
    described_class.new(Mordant::Scopes::Signal.new(frame), described_class.checked(places)).to_h
  end

  it "says whether black and white are not reached, met or passed, by the share of pixels at the guide or beyond" do
    {0 => "under", 3 => "under", 20 => "met", 90 => "met", 400 => "past"}.each do |count, state|
      black, white = reading({"black" => 64 / 1023.0, "white" => 940 / 1023.0}, {60 => count, 500 => 10_000 - 2 * count, 950 => count}).values_at("black", "white")
      expect([black[:state], white[:state], black[:beyond], white[:beyond]]).to eq([state, state, count / 10_000.0, count / 10_000.0])
    end
  end

  it "tells how many codes there are to go" do
    black, white = reading({"black" => 0.0, "white" => 940 / 1023.0}, {30 => 300, 500 => 9400, 900 => 300}).values
    expect([black[:codes], white[:codes]]).to eq([30, 40])
    expect(reading({"black" => 0.0}, {0 => 50, 500 => 9950}).keys).to eq(["black"])
  end

  it "refuses what is no guide" do
    [[], {"grey" => 0.5}, {"black" => "0"}, {"white" => 1.5}].each { |wrong| expect { described_class.checked(wrong) }.to raise_error(Mordant::ParameterError) { |error| expect(error.path).to eq("guides") } }
    expect(described_class.checked(nil)).to eq({})
  end
end

RSpec.describe Mordant::Scopes::Exposures do
  it "finds the darkest, the lightest and a patch on the axis of log exposure" do
    space = Mordant::Colour::WorkingSpace.default
    light = Numo::DFloat.new(40, 100).fill(0.18)
    light[true, 0...5] = 0.18 / 8
    light[true, -10..-1] = 1.8
    codes = space.transfer.encode(light)
    frame = Mordant::Frame.new(Numo::SFloat.cast(codes.reshape(1, 4000).tile(3, 1)), width: 100, height: 40, encoding: "acescct")
    found = described_class.new(frame, space:, patch: [0.9, 0.0, 0.1, 1.0]).to_h
    expect(found[:ends]).to match([be_within(1e-3).of(-3 * 0.30103), be_within(1e-3).of(1.0)])
    expect(found[:patch]).to be_within(1e-3).of(1.0)
    expect(described_class.new(frame, space:).to_h).not_to have_key(:patch)
  end
end
