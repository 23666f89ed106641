# frozen_string_literal: true

require "spec_helper"
require_relative "../../support/mattes"

RSpec.describe "Keys" do
  include Mattes

  # Log codes of hue in degrees, chroma and the mean of green and blue; by the definition, not by the program.
  def code(hue, chroma, base = 0.4)
    x, y = chroma * Math.cos(hue * Math::PI / 180), chroma * Math.sin(hue * Math::PI / 180)
    [base + x, base + y / Math.sqrt(3), base - y / Math.sqrt(3)]
  end

  def taken(part, *colours) = matte(part, width: colours.size, height: 1, rgb: patches(*colours)).to_a.flatten.map { |w| w.round(3) }

  it "counts in hue, chroma and lightness of log codes" do
    axes = Mordant::Matte::Axes.new([[0.5], [0.4], [0.4]].map { |one| Numo::SFloat.cast(one) }, Mordant::Colour::WorkingSpace.default)
    expect([axes.x[0], axes.y[0], axes.chroma[0], axes.from_hue(0.0)[0][0]]).to match([be_within(1e-6).of(0.1), 0.0, be_within(1e-6).of(0.1), be_within(0.05).of(0.0)])
    {120.0 => [0.4, 0.5, 0.4], 240.0 => [0.4, 0.4, 0.5], 60.0 => [0.5, 0.5, 0.4], 180.0 => [0.4, 0.5, 0.5]}.each do |hue, rgb|
      own = Mordant::Matte::Axes.new(rgb.map { |one| Numo::SFloat[one] }, Mordant::Colour::WorkingSpace.default)
      expect([own.from_hue(hue)[0][0], own.from_hue((hue + 180) % 360)[0][0], own.chroma[0]]).to match([be_within(0.05).of(0.0), be_within(0.05).of(180.0), be_within(1e-6).of(0.1)])
    end
  end

  it "knows how far hues are from one, to the rounding of floats" do
    turns = (0...720).map { |step| step / 2.0 }
    axes = Mordant::Matte::Axes.new(turns.map { |hue| code(hue, 0.2) }.transpose.map { |row| Numo::SFloat.cast(row) }, Mordant::Colour::WorkingSpace.default)
    off, side = axes.from_hue(100.0)
    apart = turns.map { |hue| (hue - 100 + 180) % 360 - 180 }
    expect(off.to_a.zip(apart).map { |found, truth| (found - truth.abs).abs }.max).to be < 1e-4
    expect(side.to_a.zip(apart).count { |found, truth| truth.abs.between?(1, 179) && (found < 0) != (truth < 0) }).to eq(0)
  end

  it "takes exactly the hues it should, soft as stated on either side, over the turn of the circle too" do
    [0.0, 120.0, 200.0, 350.0].each do |hue|
      key = part("key", hue:, hue_width: 40.0, hue_soft: [10.0, 30.0])
      away = [-40, -31, -25, -20.0, -19, 0, 19, 20.0, 35, 51, 90, 180]
      expect(taken(key, *away.map { |off| code(hue + off, 0.1) })).to match([0, 0, be_within(0.01).of(0.5), be_within(0.003).of(1), 1, 1, 1, be_within(0.003).of(1), be_within(0.01).of(0.5), 0, 0, 0])
    end
    expect(taken(part("key", hue: 10.0, hue_width: 40.0), [0.4, 0.4, 0.4], code(10, 0.002), code(10, 0.02))).to match([0, be_within(0.01).of(0.5), 1])
  end

  it "takes ranges of chroma and of lightness, soft as stated, and all where none is given" do
    chroma = part("key", chroma_low: 0.1, chroma_high: 0.2, chroma_soft: [0.04, 0.02])
    expect(taken(chroma, *[0.05, 0.08, 0.1, 0.15, 0.2, 0.21, 0.23].map { |c| code(77, c) })).to match([0, be_within(0.01).of(0.5), be_within(0.003).of(1), 1, be_within(0.003).of(1), be_within(0.01).of(0.5), 0])
    space = Mordant::Colour::WorkingSpace.default
    grey = ->(tone) { [space.black + tone * (space.white - space.black)] * 3 }
    light = part("key", lightness_low: 0.4, lightness_high: 0.6, lightness_soft: [0.2, 0.1])
    expect(taken(light, *[0.15, 0.3, 0.41, 0.5, 0.59, 0.65, 0.75].map(&grey))).to match([0, be_within(0.01).of(0.5), 1, 1, 1, be_within(0.01).of(0.5), 0])
    expect(taken(part("key"), [0.1, 0.9, 0.3], [0.0, 0.0, 0.0])).to eq([1, 1])
  end

  it "does not change with the exposure where lightness does not count" do
    key = part("key", hue: 200.0, hue_width: 30.0, chroma_low: 0.05)
    colours = [[190, 0.08], [230, 0.08], [200, 0.04]]
    expect(taken(key, *colours.map { |hue, chroma| code(hue, chroma, 0.2) })).to eq(taken(key, *colours.map { |hue, chroma| code(hue, chroma, 0.7) }))
  end

  it "takes what is near samples in RGB, and a free region of the plane of hue and chroma" do
    near = part("samples", samples: [[0.4, 0.4, 0.5], [0.2, 0.3, 0.2]], distance: 0.05, soft: 0.04)
    expect(taken(near, [0.4, 0.4, 0.5], [0.4, 0.44, 0.5], [0.4, 0.47, 0.5], [0.4, 0.4, 0.6], [0.2, 0.3, 0.24], [0.3, 0.35, 0.35])).to match([1, 1, be_within(0.01).of(0.5), 0, 1, 0])
    expect(taken(part("samples"), [0.0, 0.0, 0.0])).to eq([0])
    square = part("plane", outline: [[0.1, -0.05], [0.2, -0.05], [0.2, 0.05], [0.1, 0.05]], soft: 0.04)
    plane = ->(x, y) { [0.4 + x, 0.4 + y / Math.sqrt(3), 0.4 - y / Math.sqrt(3)] }
    expect(taken(square, plane[0.15, 0], plane[0.105, 0.045], plane[0.08, 0], plane[0.22, 0.0], plane[0.05, 0], plane[-0.15, 0])).to match([1, 1, be_within(0.03).of(0.5), be_within(0.03).of(0.5), be_within(0.01).of(0), 0])
  end

  it "is calmed against noise, which leaves its picture as it is" do
    Numo::NArray.srand(3)
    noisy = Numo::SFloat.new(3, 120 * 60).rand_norm(0.5, 0.06)
    sharp, calm = [0.0, 0.02].map { |size| matte(part("key", lightness_low: 0.55, lightness_soft: [0.3, 0.1], calm: size), rgb: noisy) }
    expect(calm.stddev).to be < sharp.stddev / 2
  end

  it "follows picks: more takes colours in, fewer leaves them out, and what was picked before stays" do
    sky, cloud, rope = [[0.42, 0.47, 0.55], [0.46, 0.5, 0.56], [0.4, 0.36, 0.3]]
    Numo::NArray.srand(5)
    patch = ->(rgb) { Numo::NArray.vstack(rgb.map { |value| Numo::SFloat.new(100).rand_norm(value, 0.003) }) }
    share = ->(kind, values, rgb) { matte(part(kind, **values.transform_keys(&:to_sym)), width: 10, height: 10, rgb: patch[rgb]).mean }
    %w[key samples plane luminance].each do |kind|
      pick = ->(values, rgb, act) { Mordant::Matte.fetch(kind).new(values).after_pick(patch[rgb], act, Mordant::Colour::WorkingSpace.default) }
      first = pick[{}, sky, "fresh"]
      both = pick[first, cloud, "more"]
      all = pick[both, rope, "more"]
      fewer = pick[all, rope, "fewer"]
      seen = [[first, sky], [both, sky], [both, cloud], [all, rope], [fewer, sky], [fewer, cloud], [fewer, rope]].map { |values, rgb| share[kind, values, rgb] }
      expect(seen).to match([*[be > 0.9] * 6, be < 0.05]), "#{kind}: #{seen}"
      expect(share[kind, first, rope]).to be < 0.05
    end
    expect { Mordant::Matte.fetch("ellipse").new({}).after_pick(patch[sky], "fresh", nil) }.to raise_error(Mordant::ParameterError, /a key, which takes picks/)
  end
end
