# frozen_string_literal: true

require "spec_helper"
require_relative "../../support/kernels"
require_relative "../../support/mattes"

RSpec.describe Mordant::Pointwise::Sweep do
  include Mattes
  include Kernels

  it "does what is said to small and to large pictures alike" do
    sweep = described_class.new(3) { |a, b, c| [a * b + c, Mordant::Pointwise.choose(a < b, c, a)] }
    [5, 20_000].each do |size|
      sum, chosen = sweep.call(*[2.0, 3.0, 0.5].map { |value| Numo::SFloat.new(size).fill(value) })
      expect([sum.size, sum.to_a.uniq, chosen.to_a.uniq]).to eq([size, [6.5], [0.5]])
    end
  end

  it "makes whole numbers of 16 bits, cut off, of small and of large pictures alike" do
    sweep = described_class.new(1, makes: :codes) { |plane| [plane * 10.0, plane.clip(0.0, 65_535.0)] }
    given = [0.19, 0.2, 7.95, 300.0, Float::NAN]
    [1, 4000].each do |times|
      tens, ones = sweep.call(Numo::SFloat.cast(given * times))
      expect([tens, ones]).to all(be_a(Numo::UInt16))
      expect([tens.to_a, ones.to_a].map(&:uniq)).to eq([[1, 2, 79, 3000, 0], [0, 7, 300]])
    end
  end

  it "refuses planes of other kinds and lengths, which it would read past" do
    sweep = described_class.new(2) { |a, b| [a + b] }
    whole = Numo::SFloat.zeros(20_000)
    [Numo::SFloat.zeros(19_999), Numo::DFloat.zeros(20_000), whole.reshape(2, 10_000)].each { |other| expect { sweep.call(whole, other) }.to raise_error(Mordant::ShapeError, /20000/) }
  end

  it "refuses rooms of other kinds and lengths, which it would write past" do
    sweep = described_class.new(1) { |plane| [plane + 1.0] }
    whole = Numo::SFloat.zeros(20_000)
    [[Numo::SFloat.zeros(19_999)], [Numo::UInt16.zeros(20_000)], []].each { |into| expect { sweep.call(whole, into:) }.to raise_error(Mordant::ShapeError, /to write to/) }
    expect(sweep.call(whole, into: [room = Numo::SFloat.zeros(20_000)]).first).to equal(room)
  end

  it "does without a kernel the tiles alone in which there is a NaN, and leaves it where it is" do
    plane = Numo::SFloat.new(100_000).seq
    plane[[40_000, 99_999]] = Float::NAN
    made = described_class.new(2) { |a, b| [a * 2.0 + b] }.call(plane, plane)
    expect(made.first.isnan.where.to_a).to eq([40_000, 99_999])
    expect([0, 39_999, 40_001, 99_998].map { |at| made.first[at] }).to eq([0, 119_997, 120_003, 299_994])
  end

  it "takes parts of one plane as planes, of small and of large ones, and none beyond it" do
    sweep = described_class.new(3) { |before, own, after| [after - before + own * 0.0] }
    [40, 70_000].each do |size|
      plane = Numo::SFloat.new(size).seq**2 / size
      made = sweep.parts(plane, [0, 1, 2], Numo::SFloat.new(size - 2).allocate).first
      expect([made[0], made[size - 3]]).to match([be_within(1e-4).of(4.0 / size), be_within(0.05).of(4.0 * (size - 2) / size)])
      expect { sweep.parts(plane, [0, 1, 3], Numo::SFloat.zeros(size - 2)) }.to raise_error(Mordant::ShapeError, /parts of #{size}/)
    end
  end

  width, height = 160, 90 # a picture that is worth a kernel

  it "goes round at 2^32 with whole numbers, as noise does that belongs to its place" do
    window = Mordant::Grade::Window.new(left: 4_000_000, top: 70_000, width:, height:)
    made = Mordant::Film::Speckle.normal(window, 0xFEDCBA98)
    mixed = ->(bits) { [[16, 0x7FEB352D], [15, 0x846CA68B]].reduce(bits) { |one, (shift, factor)| ((one ^ (one >> shift)) * factor) % 2**32 }.then { |one| one ^ (one >> 16) } }
    [0, 31, 159, 160, 7777, 14_399].each do |at|
      x, y = 4_000_000 + at % width, 70_000 + at / width
      bytes = [mixed[(mixed[x * 0x9E3779B1 % 2**32] + mixed[y * 0x85EBCA77 % 2**32] + 0xFEDCBA98) % 2**32]].pack("L").bytes
      expect((made[at] * Mordant::Film::Speckle::SPREAD + Mordant::Film::Speckle::MEAN).round).to eq(bytes.sum)
    end
    expect(one_by_one { Mordant::Film::Speckle.normal(window, 0xFEDCBA98) }).to eq(made)
  end

  # All colours there are and beyond, and what no picture should hold.
  let(:rgb) do
    Numo::NArray.srand(11)
    (Numo::SFloat.new(3, width * height).rand * 1.4 - 0.2).tap { |made| [Float::NAN, Float::INFINITY, -Float::INFINITY].each_with_index { |odd, at| made[at, 50 + at] = odd } }
  end

  parts = {
    "hues, soft alike" => ["key", {hue: 210.0, hue_width: 60.0}], "hues, chroma and lightness" => ["key", {hue: 20.0, hue_width: 90.0, hue_soft: [5.0, 40.0], chroma_low: 0.05, chroma_high: 0.4, lightness_low: 0.1, lightness_high: 0.8}],
    "nothing of a key" => ["key", {}], "luminance" => ["luminance", {low: 0.2, high: 0.7}], "samples" => ["samples", {samples: [[0.4, 0.4, 0.5], [0.2, 0.3, 0.2]], distance: 0.2, soft: 0.2}],
    "the plane" => ["plane", {outline: [[0.1, -0.3], [0.5, -0.05], [0.2, 0.4]], soft: 0.1}], "an ellipse" => ["ellipse", {turn: 33.0, centre: [0.2, -0.1]}], "a gradient" => ["gradient", {full: [-0.3, -0.1], none: [0.4, 0.2]}]
  }
  parts.each do |name, (kind, values)|
    it "takes of #{name} what its formula takes one by one, bit for bit" do
      made, apart = [matte(part(kind, **values), width:, height:, rgb:), one_by_one { matte(part(kind, **values), width:, height:, rgb:) }]
      expect(bits(made)).to eq(bits(apart))
      expect(made.to_a.flatten.uniq.size).to be > 100 unless values.empty?
    end
  end

  it "takes of a shape whose feather goes along its edge, and of one on a path in perspective, the same bits" do
    there = Mordant::Track::Map.new([1.1, 0.1, 0.02, -0.1, 0.9, 0.05, 0.2, 0.1, 1.0])
    tries = [-> { matte(circle(0.3, feather: [0.1, 0.2]).tap { |shape| shape["parameters"]["points"][1][7] = 0.05 }, width:, height:) },
      lambda {
        moment = Mordant::Grade::Moment.of(Mordant::Frame.new(rgb, width:, height:, encoding: Mordant::Colour::WorkingSpace.default.log))
        Mordant::Matte.fetch("ellipse").new({}).carried(there).weights(Mordant::Matte::Sight.new(moment, Mordant::Colour::WorkingSpace.default))
      }]
    tries.each { |try| expect(bits(try.call)).to eq(bits(one_by_one(&try))) }
  end

  it "mixes steps side by side as is written: what each changes, at its strength, as far as its matte takes it" do
    half = {"contributors" => [], "strength" => 0.5}
    across = {"contributors" => [{"id" => "a", "kind" => "gradient", "parameters" => {"full" => [-0.9, 0.0], "none" => [0.9, 0.0]}}]}
    steps = [{"matte" => across}, {"strength" => 0.25}, {"matte" => half}].each_with_index.map { |more, at| {"id" => at.to_s, "kind" => "balance", "braid" => "x", "parameters" => {"exposure" => at - 1.5}, **more} }
    frame = Mordant::Frame.new(Numo::SFloat.new(3, width * height).fill(0.5), width:, height:, encoding: "acescct")
    made = ->(*some) { Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => some), source: "acescct").apply(frame).rgb }
    before, *changed = made.call, *steps.map { |step| made.call(step.except("braid", "matte", "strength")) }
    weights = [matte(*across["contributors"].map { |one| one.except("id") }, width:, height:).flatten, 0.25, 0.5]
    expect((made.call(*steps) - changed.zip(weights).reduce(before) { |sum, (own, weight)| sum + (own - before) * weight }).abs.max).to be < 1e-4
    expect(bits(made.call(*steps))).to eq(bits(one_by_one { made.call(*steps) }))
  end
end
