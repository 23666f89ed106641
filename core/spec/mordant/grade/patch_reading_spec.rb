# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::PatchReading do
  let(:space) { Mordant::Colour::WorkingSpace.default }

  def read(*code, recipe: Mordant::Grade::Recipe.new("steps" => []), odd: 0)
    rgb = Numo::UInt16.cast(Numo::DFloat[*code].reshape(3, 1) * 65_535 + Numo::DFloat.zeros(3, 25))
    rgb[true, 0...odd] = 60_000 if odd.positive?
    described_class.new(Mordant::Media::Codes.new(rgb, width: 5, height: 5), before: Mordant::Grade::Plan.new(recipe:, source: "acescct"))
  end

  it "stands on the hue circle with red at 0, green at a third and blue at two thirds" do
    [[0.6, 0.3, 0.3], [0.3, 0.6, 0.3], [0.3, 0.3, 0.6]].each_with_index do |code, third|
      expect(read(*code).hue).to be_within(1e-4).of(third / 3.0)
    end
    expect(read(0.6, 0.6, 0.3).hue).to be_within(1e-4).of(1 / 6.0)
  end

  it "tells saturation and tones as curves count them, of the medians" do
    reading = read(0.5, 0.4, 0.3, odd: 8)
    expect(reading.saturation).to be_within(1e-4).of(0.2)
    expect(reading.tones).to match([0.5, 0.4, 0.3].map { |code| be_within(1e-4).of(space.tone(code)) })
    weights = space.luminance_weights
    expect(reading.tone).to be_within(1e-4).of(space.tone(0.5 * weights[0] + 0.4 * weights[1] + 0.3 * weights[2]))
  end

  it "tells a grey patch, and what the steps before make of one" do
    expect([read(0.4, 0.4, 0.4).grey?, read(0.5, 0.4, 0.4).grey?]).to eq([true, false])
    expect(read(0.5, 0.4, 0.3, recipe: Frames.recipe(saturation: 0.0)).grey?).to be(true)
  end
end
