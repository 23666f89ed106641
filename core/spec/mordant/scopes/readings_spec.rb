# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Scopes::Extents do
  def of(frame)
    signal = Mordant::Scopes::Signal.new(frame)
    described_class.new(%i[luma red].to_h { |channel| [channel, Mordant::Scopes::Histogram.counts(signal, channel)] }).to_h
  end

  it "tells where a ramp begins, lies and ends" do
    low, middle, high = of(Frames.ramp(width: 1000))[:luma]
    expect([low, middle, high]).to match([be_within(0.003).of(0.005), be_within(0.003).of(0.5), be_within(0.003).of(0.995)])
  end

  it "stays within the scale, channel by channel" do
    flat = of(Frames.flat([1.7, 0.2, -0.4], encoding: "rec709-bt1886"))
    expect(flat[:red]).to all(be_within(0.003).of(1.0))
    expect(flat[:luma]).to all(be_within(0.004).of((0.2126 * 1.7 + 0.7152 * 0.2 - 0.0722 * 0.4)))
  end
end

RSpec.describe Mordant::Scopes::StepInput do
  def of(*values) = described_class.new(Frames.flat(values), space: Mordant::Colour::WorkingSpace.default).to_h

  it "counts tones, hues and saturations in the bins they fall into" do
    input = of(0.6, 0.3, 0.3)
    bin = ->(place) { (place * 96).floor }
    tone = ->(code) { bin[Mordant::Colour::WorkingSpace.default.tone(code)] }
    expect(input[:red].index(1.0)).to eq(tone[0.6])
    expect(input[:green].index(1.0)).to eq(tone[0.3])
    expect([input[:hue].index(1.0), input[:saturation].index(1.0)]).to eq([0, bin[0.3]])
    expect(input[:luma].values_at(tone[0.3], tone[0.6])).to eq([1.0, 0.5])
  end

  it "has no hues of grey" do
    expect(of(0.4, 0.4, 0.4)[:hue].sum).to eq(0.0)
  end
end

RSpec.describe Mordant::Scopes::Skin do
  # Display codes of a luma and a colour difference of so much at an angle.
  def patch(angle, saturation = 0.12, luma = 0.5)
    cb, cr = saturation * Math.cos(angle * Math::PI / 180), saturation * Math.sin(angle * Math::PI / 180)
    red, blue = luma + cr * 1.5748, luma + cb * 1.8556
    Frames.flat([red, (luma - 0.2126 * red - 0.0722 * blue) / 0.7152, blue], encoding: "rec709-bt1886")
  end

  def read(...) = described_class.new(patch(...), [0.0, 0.0, 1.0, 1.0])

  it "tells the angle off the line" do
    expect([100.0, 123.0, 131.5].map { |angle| read(angle).off }).to match([-23.0, 0.0, 8.5].map { |off| be_within(0.05).of(off) })
    expect(read(123.0).to_h).to include(direction: "on the line", level: be_within(1e-3).of(0.5), saturation: be_within(1e-3).of(0.12))
  end

  it "says which way it is off" do
    expect([127, 119, 95, 185, 60, 300].map { |angle| read(angle).direction }).to eq(["yellower", "redder", "more magenta", "greener", "more magenta", "nothing like skin"])
    expect(read(123, 0.004).direction).to eq("grey")
  end

  # The primaries of BT.709 stand at these angles of its colour difference plane.
  it "has yellow and red where the standard puts them" do
    yellow, red = [[1, 1, 0], [1, 0, 0]].map { |rgb| described_class.new(Frames.flat(rgb, encoding: "rec709-bt1886"), [0, 0, 1, 1]).off }
    expect([yellow, red]).to match([be_within(0.5).of(described_class::YELLOW), be_within(0.5).of(described_class::RED)])
  end

  it "measures the patch alone, with some of its points" do
    frame = patch(123.0)
    frame.rgb[true, 0...32] = 1.0 # the upper half is white
    lower = described_class.new(frame, [0.0, 0.5, 1.0, 0.5])
    expect(lower.off).to be_within(0.05).of(0.0)
    expect(lower.to_h[:points].size).to eq(32)
    expect { described_class.new(frame, [0, 0, "x", 1]) }.to raise_error(Mordant::ParameterError, /region/)
  end
end
