# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Media::TestPicture do
  def code(picture, x, y, width: 240, height: 120)
    @codes ||= {}
    codes = @codes[picture] ||= described_class.fetch(picture).codes(width, height)
    codes.rgb[true, (y * height).floor * width + (x * width).floor].to_a.map { |value| value / 65_535.0 }
  end

  def stops(code) = Math.log2(Mordant::Colour::Transfer::Acescct.decode(Numo::DFloat[code])[0] / 0.18)

  it "has bars of the standard's values, by falling luma" do
    bars = Array.new(8) { |n| code("bars", (n + 0.5) / 8, 0.3) }
    expect(bars[1]).to match([be_within(1e-4).of(0.75), be_within(1e-4).of(0.75), 0.0])
    luma = bars.map { |red, green, blue| 0.2126 * red + 0.7152 * green + 0.0722 * blue }
    expect(luma).to eq(luma.sort.reverse)
    expect(code("bars", 0.3, 0.7)).to eq([0.0, 1.0, 1.0])
    expect([0.05, 0.95].map { |x| code("bars", x, 0.9) }).to eq([[0.0] * 3, [1.0] * 3])
  end

  it "has ramps over the whole tone axis, channel by channel" do
    expect(code("ramps", 0.999, 0.1)).to all(be > 0.99)
    expect(code("ramps", 0.0, 0.1).uniq.size).to eq(1)
    red, green, blue = code("ramps", 0.7, 0.3)
    expect([red > 0.6, green, blue]).to match([true, be_within(1e-4).of(0.0729), be_within(1e-4).of(0.0729)])
  end

  it "has every hue, pale and dark" do
    expect([0, 1, 2].map { |third| code("colours", third / 3.0 + 0.002, 0.5).index(code("colours", third / 3.0 + 0.002, 0.5).max) }).to eq([0, 1, 2])
    expect(code("colours", 0.4, 0.005).min).to be > 0.97
    expect(code("colours", 0.4, 0.995).max).to be < 0.03
  end

  it "has greys a stop apart, and skins that turn darker" do
    greys = Array.new(15) { |n| stops(code("patches", (n + 0.5) / 15, 0.125)[1]) }
    expect(greys).to match(described_class::Rows::STOPS.map { |stop| be_within(0.03).of(stop) })
    skins = Array.new(15) { |n| code("patches", (n + 0.5) / 15, 0.375) }
    expect(skins.map(&:first)).to eq(skins.map(&:first).sort.reverse)
    expect(skins).to all(satisfy { |red, green, blue| red > green && green > blue })
  end

  it "is of the size asked for, and knows its names" do
    expect(described_class.all.map { |one| one.codes(33, 17).then { |codes| [codes.width, codes.height] } }.uniq).to eq([[33, 17]])
    expect { described_class.fetch("moon") }.to raise_error(Mordant::UnknownIdError, /bars, colours/)
  end
end
