# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Scopes::Tally do
  width, heights = 200, [70, 3, 47] # bands of which some are worth a kernel and one is not

  let(:rgb) do
    Numo::NArray.srand(5)
    (Numo::SFloat.new(3, width * heights.sum).rand * 1.6 - 0.3).tap { |made| [Float::NAN, Float::INFINITY, -Float::INFINITY].each_with_index { |odd, at| made[at, 900 + at] = odd } }
  end

  def frame(rgb, height, width) = Mordant::Frame.new(rgb, width:, height:, encoding: "rec709-bt1886")

  let(:whole) { frame(rgb, heights.sum, width) }
  let(:bands) do
    heights.each_with_index.map do |height, number|
      first = heights.first(number).sum * width
      frame(rgb[true, first...(first + height * width)].dup, height, width)
    end
  end

  it "adds up from bands to what all instruments show of the whole picture" do
    wanted = {"traces" => true, "vectorscope" => 2, "histogram" => true, "solid" => "difference"}
    one = Mordant::Scopes::Instruments.new(Mordant::Scopes::Signal.new(whole), wanted)
    all = Mordant::Scopes::Instruments.new(bands.map { |band| described_class.of(Mordant::Scopes::Signal.new(band), wanted) }.reduce(:+), wanted)
    expect([all.header, all.parts]).to eq([one.header, one.parts])
    expect(all.header[:pixels]).to eq(24_000)
  end

  it "has the same for guides and for what stands behind the staves" do
    tally = bands.map { |band| described_class.of(Mordant::Scopes::Signal.new(band), {}) }.reduce(:+)
    guides = [tally, Mordant::Scopes::Signal.new(whole)].map { |one| Mordant::Scopes::Touch.new(one, {"black" => 0.1, "white" => 0.8}).to_h }
    expect(guides.first).to eq(guides.last)
    tones = bands.map { |band| Mordant::Scopes::ToneTrace.of(band) }.reduce(:+).to_h
    expect(tones).to eq(Mordant::Scopes::ToneTrace.of(whole).to_h)
    expect(tones[:warmth].compact.size).to be > 40
  end

  it "counts every pixel, those at the ends and NaN at 0" do
    counts = described_class.of(Mordant::Scopes::Signal.new(whole), {}).counts(:red)
    red = rgb[0, true].to_a
    expect([counts.sum, counts[0], counts[1023], counts[512]])
      .to eq([24_000, red.count { |value| value.nan? || value < 0.5 / 1023 }, red.count { |value| value >= 1022.5 / 1023 }, red.count { |value| !value.nan? && value.between?(511.5 / 1023, 512.5 / 1023) }])
  end
end
