# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Pointwise::SquareTable do
  let(:table) { described_class.new(Numo::SFloat[0, 1, 2, 10, 11, 12, 20, 21, 26], 3) }

  def at(*places) = table.call(*places.transpose.map { |row| Numo::SFloat.cast(row) }).to_a.map { |value| value.round(2) }

  it "goes straight between its places, both ways, and ends at its edge" do
    expect(at([0, 0], [1, 0], [0, 1], [0.5, 0], [0, 0.5], [0.5, 1.25], [1.5, 1.5])).to eq([0.0, 1.0, 10.0, 0.5, 5.0, 13.0, 17.5])
    expect(at([-3, -1], [-3, 1], [9, 0], [9, 9])).to match([0.0, 10.0, be_within(0.01).of(2.0), be_within(0.05).of(26.0)])
  end

  it "has NaN in the corner" do
    expect(at([Float::NAN, Float::NAN], [Float::NAN, 1])).to eq([0.0, 10.0])
  end
end
