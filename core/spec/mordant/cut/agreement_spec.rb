# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Cut::Agreement do
  width, height = described_class::WIDTH, described_class::HEIGHT

  # A lit patch that goes over a slope of grey, a step a frame; graded by a curve that keeps order.
  def picture(at, other: false, mirrored: false, &curve)
    x = Numo::SFloat.new(1, described_class::WIDTH).seq / described_class::WIDTH + Numo::SFloat.zeros(described_class::HEIGHT, 1)
    y = Numo::SFloat.new(described_class::HEIGHT, 1).seq / described_class::HEIGHT + Numo::SFloat.zeros(1, described_class::WIDTH)
    x = 1 - x if mirrored
    grey = other ? (1 - y) * 0.6 + x * 0.1 : y * 0.3 + x * 0.2
    centre = 0.1 + at * 0.012
    grey += Numo::NMath.exp(-((x - centre)**2 + (y - 0.5)**2) / 0.02) * 0.5
    grey = curve.call(grey) if curve
    codes = Numo::UInt16.cast(grey.clip(0, 1) * 65_535).reshape(grey.size)
    Mordant::Media::Codes.new(Numo::NArray.vstack([codes] * 3), width: described_class::WIDTH, height: described_class::HEIGHT)
  end

  let(:source) { (0...90).map { |at| picture(at) } }

  def graded(frames, **more) = frames.map { |at| picture(at, **more) { |grey| grey**0.6 * 0.9 + 0.05 } }

  def found(programme, first: 30) = described_class.of(programme, source, (0...programme.size).map { |frame| first + frame }).map { |one| [one.kind, one.first, one.count, one.by] }

  it "finds nothing where frames are the same in another grade" do
    expect(found(graded(30...60))).to eq([])
  end

  it "finds what is slipped, flopped or runs at another speed" do
    expect(found(graded(35...65))).to eq([["slip", 0, 30, 5]])
    expect(found(graded(22...52))).to eq([["slip", 0, 30, -8]])
    expect(found(graded(30...60, mirrored: true))).to eq([["flop", 0, 30, 0]])
    expect(found(graded((0...30).map { |frame| 30 + frame / 2.0 }))).to eq([["speed", 0, 30, 0.5]])
    expect(found(graded((0...28).map { |frame| 30 + frame * 2 }))).to eq([["speed", 0, 28, 2.0]])
  end

  it "finds edits that lie elsewhere, and other pictures" do
    expect(found(graded(30...34, other: true) + graded(34...60))).to eq([["cut", 0, 4, 4]])
    expect(found(graded(30...55) + graded(55...60, other: true))).to eq([["cut", 25, 5, -5]])
    expect(found(graded(30...60, other: true))).to eq([["picture", 0, 30, 30]])
    expect(found(graded(30...40) + graded(40...45, other: true) + graded(45...60))).to eq([["picture", 10, 5, -5]])
  end

  it "says nothing of pictures of one colour" do
    grey = Mordant::Media::Codes.new(Numo::UInt16.zeros(3, width * height) + 9_000, width:, height:)
    expect(described_class.of([grey] * 9, source, (30...39).to_a)).to eq([])
  end
end
