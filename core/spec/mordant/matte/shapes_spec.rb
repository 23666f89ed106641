# frozen_string_literal: true

require "spec_helper"
require_relative "../../support/mattes"

RSpec.describe "Shapes" do
  include Mattes

  let(:size) { {width: 180, height: 90} }

  it "cover what they should: a square to the pixel, a circle of curves to a thousandth, what winds round a place too" do
    square = matte(polygon([-0.2, -0.2], [0.2, -0.2], [0.2, 0.2], [-0.2, 0.2]), **size)
    expect([square.sum, square[45, 90], square[27, 72], square[26, 90], square[45, 71]]).to match([be_within(40).of(36 * 36), 1.0, be > 0.5, be < 0.5, be < 0.5])
    round = matte(circle(0.4), width: 400, height: 200)
    expect(round.sum / 40_000).to be_within(0.001).of(Math::PI * 0.16)
    twice = polygon([0, -0.4], [0.24, 0.32], [-0.38, -0.12], [0.38, -0.12], [-0.24, 0.32])
    expect(matte(twice, **size)[45, 90]).to eq(1.0)
  end

  it "fall inside and outside apart, for the whole and for each point, and in the midst between" do
    square = [[-0.2, -0.2], [0.2, -0.2], [0.2, 0.2], [-0.2, 0.2]]
    made = matte(polygon(*square).tap { |one| one["parameters"]["feather"] = [0.1, 0.2] }, width: 200, height: 100)
    along = ->(off) { made[50, (100 + (0.2 + off) * 100).round] } # half a pixel further
    smooth = ->(share) { 3 * share**2 - 2 * share**3 }
    [[-0.12, 1.0], [-0.05, smooth[0.245 / 0.3]], [0.0, smooth[0.195 / 0.3]], [0.1, smooth[0.095 / 0.3]], [0.21, 0.0]].each { |off, value| expect(along[off]).to be_within(0.01).of(value) }
    one = polygon(*square)
    one["parameters"]["points"][1][7] = 0.2
    own = matte(one, width: 200, height: 100)
    expect([own[25, 125], own[50, 125], own[75, 75]]).to match([be > 0.3, be > 0.05, be < 0.01])
  end

  it "are moved, turned and scaled about a pivot, and left out inside" do
    bar = polygon([0.1, -0.05], [0.4, -0.05], [0.4, 0.05], [0.1, 0.05])
    turned = bar.merge("parameters" => bar["parameters"].merge("turn" => 90.0, "move" => [0.2, 0.0], "scale" => [1.0, 2.0]))
    made = matte(turned, **size)
    expect([made[45 + 22, 108], made[45 + 22, 108 + 8], made[45, 108], made[45 + 22, 108 + 11], made[45, 90 + 22]]).to eq([1.0, 1.0, 0.0, 0.0, 0.0])
    expect(matte(circle(0.3).merge("invert" => true), **size)[45, 90]).to eq(0.0)
  end

  it "go from all to nothing along a gradient line" do
    made = matte(part("gradient", full: [-0.5, 0.0], none: [0.5, 0.0]), width: 200, height: 100)
    expect([made[3, 40], made[90, 149], made[50, 99]]).to match([1.0, be < 0.001, be_within(0.02).of(0.5)])
  end

  it "are as large on a proxy as on the master, and show no boundary of windows, at any size of feather" do
    [[0.0, 0.0], [0.02, 0.05], [0.3, 0.6]].each do |feather|
      shape = circle(0.3, x: 0.2).tap { |one| one["parameters"]["feather"] = feather }
      large, small = matte(shape, width: 720, height: 360), matte(shape, width: 180, height: 90)
      expect((large.reshape(90, 4, 180, 4).mean(1, 3) - small).abs.max).to be < 0.16 # half a pixel's worth of an edge
      expect((large.reshape(90, 4, 180, 4).mean(1, 3) - small).abs.mean).to be < 0.002
      window = Mordant::Grade::Window.new(left: 333, top: 71, width: 150, height: 130)
      expect(matte(shape, width: 720, height: 360, window:)).to eq(large[71...201, 333...483])
    end
  end

  it "are the same each time, whatever was made of them before" do
    [circle(0.2), part("gradient", full: [0.0, -0.2], none: [0.0, 0.2]), part("ellipse", radii: [0.2, 0.1])].each do |shape|
      first = matte(shape, **size)
      changed = [shape.merge("invert" => true), shape.merge("softness" => 0.05), shape.merge("strength" => 0.5)].map { |one| matte(one, **size) }
      expect(matte(shape, **size)).to eq(first)
      expect(changed[0]).to eq(first * -1.0 + 1.0)
      expect(changed[1]).not_to eq(first)
      expect(changed[2]).to eq(first * 0.5)
      expect(matte(shape, width: 90, height: 90).shape).to eq([90, 90])
    end
  end

  it "are exact on a part of a UHD picture" do
    window = Mordant::Grade::Window.new(left: 2300, top: 1000, width: 200, height: 100)
    made = matte(circle(0.25), width: 3840, height: 2160, window:)
    away = ->(row, column) { Math.hypot(2300 + column + 0.5 - 1920, 1000 + row + 0.5 - 1080) }
    [0, 50, 99].product([0, 60, 150, 158, 199]).each do |row, column|
      expect(made[row, column]).to be_within(0.05).of((540.5 - away[row, column]).clamp(0, 1).then { |share| 3 * share**2 - 2 * share**3 })
    end
  end

  it "keep 40 points and 20 keys, which move between their frames" do
    points = ->(off) { (0...40).map { |k| [off + 0.3 * Math.cos(k * Math::PI / 20), 0.3 * Math.sin(k * Math::PI / 20), 0.01, 0.0, -0.01, 0.0, 0.0, 0.01 * (k % 3)] } }
    keys = (0...20).map { |k| {"frame" => k * 5, "parameters" => {"points" => points[k * 0.01]}} }
    document = {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 1.0}, "matte" => {"contributors" => [{"id" => "s", "kind" => "outline", "name" => "round the head", "parameters" => {"points" => points[0]}, "keys" => keys}]}}]}
    recipe = Mordant::Grade::Recipe.new(document)
    again = Mordant::Grade::Recipe.new(JSON.parse(JSON.generate(recipe.to_h)))
    expect(again.to_h).to eq(recipe.to_h)
    expect([recipe.moving?, recipe.stretches(-5...100), recipe.at(7).moving?]).to eq([true, [[-5...1, false], [1...95, true], [95...100, false]], false])
    at = ->(frame) { recipe.at(frame).entries[0].matte.parts[0].contributor.points[0][0] }
    expect([at[0], at[5], at[7], at[200]]).to match([0.3, 0.31, 0.314, 0.49].map { |x| be_within(1e-9).of(x) })
  end

  it "are refused with what is wrong" do
    {
      {"points" => Array.new(10_000) { [0] * 8 }} => [/parameters.points$/, /at most 200 rows/, "10000 rows"],
      {"points" => [[0, 0, 0, 0, 0, 0, 0, Float::NAN]]} => [/points\[0\]\[7\]$/, /feather_out, a number in 0.0..4.0/, be_nan],
      {"points" => [[0, 0]]} => [/points\[0\]$/, /8 numbers/, [0, 0]],
      {"scale" => [0, 1]} => [/scale\[0\]$/, /a number in 0.01/, 0]
    }.each do |parameters, (path, expected, found)|
      expect { matte({"kind" => "outline", "parameters" => parameters}) }.to raise_error(Mordant::ParameterError) { |e| expect([e.path, e.expected, e.found]).to match([path, expected, found]) }
    end
    expect { matte({"kind" => "key", "path" => {"id" => 1, "from" => 0}}) }.to raise_error(Mordant::ParameterError, /a shape, which a path can carry/)
  end
end
