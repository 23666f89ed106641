# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::NeutralPick do
  let(:space) { Mordant::Colour::WorkingSpace.default }
  let(:source) { "logc3-ei800-wg3" }

  # A grey card under a wrong white balance, with noise, as its camera codes it.
  def card(light: 0.3, stops: [0, 0, 0], noise: 0.0, odd: 0)
    Numo::NArray.srand(3)
    ap1 = Numo::NArray.vstack(stops.map { |s| Numo::DFloat.new(400).rand_norm * noise * light + light * 2.0**s })
    ap1[true, 0...odd] = 20.0 if odd.positive?
    codes = Mordant::Colour::Conversion.new(from: "acescg", to: source).chain.exact(ap1)
    Mordant::Media::Codes.new(Numo::UInt16.cast((codes * 65_535 + 0.5).clip(0, 65_535)), width: 20, height: 20)
  end

  def pick(codes, recipe = Frames.recipe, **balance)
    described_class.new(codes, before: Mordant::Grade::Plan.new(recipe:, source:), balance: Mordant::Steps::Balance.new(balance))
  end

  def spread(codes, **balance)
    out = Mordant::Grade::Plan.new(recipe: Frames.recipe(**balance), source:).run(codes).rgb.median(axis: 1)
    out.max - out.min
  end

  it "makes a grey card grey, whatever else the balance does" do
    codes = card(stops: [0.4, -0.1, -0.5])
    [{}, {exposure: -0.7, contrast: 1.3}, {offset: [-0.08, 0, 0, 0], contrast: 1.2}, {black: 0.1, lift: [0.02, 0, 0, 0]}].each do |balance|
      found = pick(codes, **balance)
      expect(spread(codes, **balance, temperature: found.temperature, tint: found.tint)).to be < 2e-4
      expect(spread(codes, **balance)).to be > 0.03
    end
  end

  it "says by how much the white balance was off" do
    found = pick(card(stops: [0.3, 0.0, -0.3]))
    expect([found.temperature, found.tint]).to match([be_within(0.3).of(-30.0), be_within(0.3).of(0.0)])
    expect(pick(card).to_h.values).to all(be_within(0.2).of(0.0))
  end

  # The median of 400 pixels with 10 % noise is sure to 0.6 %: 0.6 points of either number.
  it "is not moved by noise and odd pixels" do
    clean, noisy = [card(stops: [0.2, 0, -0.3]), card(stops: [0.2, 0, -0.3], noise: 0.1, odd: 30)].map { |codes| pick(codes) }
    expect(noisy.temperature).to be_within(2.5).of(clean.temperature)
    expect(noisy.tint).to be_within(2.5).of(clean.tint)
  end

  it "refuses what is clipped, black, too small or no neutral thing, and says why" do
    white = Mordant::Media::Codes.new(Numo::UInt16.new(3, 400).fill(65_535), width: 20, height: 20)
    expect { pick(white) }.to raise_error(Mordant::ParameterError, /not clipped; pick something darker, found "100 % of its red/)
    expect { pick(card(light: 1e-5)) }.to raise_error(Mordant::ParameterError, /pick something brighter/)
    expect { pick(card.crop([0, 0, 0.05, 0.05])) }.to raise_error(Mordant::ParameterError, /9 pixels or more/)
    expect { pick(card(stops: [3, 0, -3])) }.to raise_error(Mordant::ParameterError, /no neutral thing/)
  end

  it "cuts a region out of a picture, held to its edges" do
    codes = Frames.codes(width: 40, height: 20)
    part = codes.crop([0.5, 0.25, 0.25, 0.5])
    expect([part.width, part.height]).to eq([10, 10])
    expect(part.rgb[true, 0]).to eq(codes.rgb[true, 5 * 40 + 20])
    expect(codes.crop([0.9, 0.9, 3, 3]).width).to eq(4)
    expect(codes.crop([7, 7, 1, 1]).width).to eq(1)
    [[0, 0, 1], [0, 0, 1, Float::NAN], "x"].each { |region| expect { codes.crop(region) }.to raise_error(Mordant::ParameterError, /region/) }
  end
end
