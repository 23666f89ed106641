# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Scopes::Waveform do
  it "puts a ramp on its diagonal, exact to the bin" do
    trace = described_class.parade(Frames.ramp(width: 256, height: 4)).first
    expect(trace.shape).to eq([256, 256])
    expect((0...256).map { |column| trace[column, true].max_index }).to eq((0...256).to_a)
    expect(trace.max).to eq(4)
  end

  it "adds up to the pixels of the picture, also where it is clipped" do
    frame = Mordant::Frame.new(Numo::SFloat.new(3, 700 * 9).rand * 3 - 1, width: 700, height: 9, encoding: "srgb")
    expect([described_class.luma(frame), *described_class.parade(frame)].map(&:sum)).to all(eq(6300))
  end

  it "weighs luma as BT.709 does" do
    trace = described_class.luma(Frames.flat([1.0, 0.0, 0.0], encoding: "rec709-bt1886"))
    expect(trace[0, true].max_index).to eq((0.2126 * 255).round)
  end

  it "finds a single stray pixel, and a place for NaN" do
    frame = Frames.flat([0.5, 0.5, 0.5], width: 400, height: 300)
    frame.rgb[1, 400 * 100 + 200] = 0.9
    frame.rgb[1, 400 * 100 + 300] = Float::NAN
    trace = described_class.parade(frame)[1]
    expect(trace[200 * 256 / 400, (0.9 * 255).round]).to eq(1)
    expect(trace[300 * 256 / 400, 0]).to eq(1)
    bright = Mordant::Scopes::Density.brightness(trace, typical: 500.0)
    expect(bright[128, (0.9 * 255).round]).to be >= Mordant::Scopes::Density::FAINTEST
    expect(bright[0, 0]).to eq(0)
  end
end

RSpec.describe Mordant::Scopes::ToneTrace do
  let(:space) { Mordant::Colour::WorkingSpace.default }

  it "reads a cast at the tone where it is" do
    span = space.white - space.black
    base = space.black + 0.5 * span
    trace = described_class.new(Frames.flat([base + 0.04 * span, base, base - 0.04 * span])).to_h
    bin = trace[:light].index(1.0)
    expect(bin).to be_within(1).of(described_class::BINS / 2)
    expect(trace[:warmth][bin]).to be_within(1e-4).of(0.08)
    expect(trace[:tint][bin]).to be_within(1e-4).of(0.0)
    expect(trace[:warmth].compact.size).to eq(1)
  end

  it "does not fail on NaN and infinities" do
    frame = Frames.flat([Float::NAN, Float::INFINITY, 0.4])
    expect(described_class.new(frame).to_h[:light].max).to eq(1.0)
  end
end
