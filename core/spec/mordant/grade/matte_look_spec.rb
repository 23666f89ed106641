# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::MatteLook do
  it "dims and greys the other pixels, and leaves those it acts on as they are" do
    frame = Mordant::Frame.new(Numo::SFloat[[0.8, 0.8], [0.2, 0.2], [0.4, 0.4]], width: 2, height: 1, encoding: "srgb")
    veiled = described_class.draw(frame, Numo::SFloat[1, 0], "veil").rgb
    expect(veiled[true, 0].to_a).to eq(frame.rgb[true, 0].to_a)
    expect(veiled[true, 1].to_a.uniq.size).to eq(1)
    expect(veiled[0, 1]).to be_between(0.02, 0.2)
  end

  it "shows weights as grey, codes of a display" do
    frame = Mordant::Frame.new(Numo::SFloat.new(3, 3).rand, width: 3, height: 1, encoding: "srgb")
    expect(described_class.draw(frame, Numo::SFloat[0, 0.25, 1], "grey").rgb.to_a).to eq([[0.0, 0.25, 1.0]] * 3)
  end

  it "draws a light line on a dark seam where it is half, and leaves all else; and tints by what it takes" do
    frame = Mordant::Frame.new(Numo::SFloat.new(3, 81).fill(0.5), width: 9, height: 9, encoding: "srgb")
    weights = Numo::SFloat.zeros(9, 9).tap { |plane| plane[true, 5..] = 1.0 }.reshape(81)
    line = described_class.draw(frame, weights, "outline").rgb[0, true].reshape(9, 9)[4, true].to_a
    expect([line[4], line[3], line[5], line[0], line[8]]).to match([be > 0.9, be < 0.4, be < 0.4, 0.5, 0.5])
    tinted = described_class.draw(frame, weights, "tint").rgb
    expect([tinted[true, 0].to_a, tinted[2, 80]]).to match([[0.5] * 3, be > 0.6])
    expect { described_class.draw(frame, weights, "neon") }.to raise_error(Mordant::ParameterError, /look: expected grey, veil, outline, tint/)
  end

  it "tells what share of the picture it takes, and what share is in between" do
    expect(described_class.told(Numo::SFloat[0, 0.5, 1, 1])).to eq({share: 0.625, between: 0.25})
  end
end
