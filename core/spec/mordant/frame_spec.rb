# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Frame do
  let(:frame) { described_class.new(Numo::SFloat.new(3, 12).seq, width: 4, height: 3, encoding: "acescct") }

  it "refuses values of another shape or type, and says what it wants" do
    expect { described_class.new(Numo::SFloat.zeros(3, 11), width: 4, height: 3, encoding: "srgb") }.to raise_error(Mordant::ShapeError, /4x3 frame needs an SFloat of shape \[3, 12\]/)
    expect { described_class.new(Numo::DFloat.zeros(3, 12), width: 4, height: 3, encoding: "srgb") }.to raise_error(Mordant::ShapeError, /DFloat/)
  end

  it "counts pixels from the top left" do
    expect(frame.at(0, 0).to_a).to eq([0, 12, 24])
    expect(frame.at(3, 2).to_a).to eq([11, 23, 35])
  end

  it "means whole blocks, and leaves out rows and columns that do not fill one" do
    expect(frame.reduce(2).rgb.to_a).to eq([[2.5, 4.5], [14.5, 16.5], [26.5, 28.5]])
    expect([frame.reduce(2).width, frame.reduce(2).height]).to eq([2, 1])
    expect(frame.reduce(1)).to equal(frame)
  end

  it "keeps its raster with other values" do
    other = frame.with(frame.rgb * 2, encoding: "srgb")
    expect([other.width, other.height, other.encoding, other.at(1, 0)[0]]).to eq([4, 3, "srgb", 2.0])
    expect { frame.with(Numo::SFloat.zeros(3, 2)) }.to raise_error(Mordant::ShapeError)
  end
end
