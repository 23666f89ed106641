# frozen_string_literal: true

require "spec_helper"
require_relative "../../support/mattes"

RSpec.describe "Refinements of mattes" do
  include Mattes

  let(:space) { Mordant::Colour::WorkingSpace.default }

  # A matte as it is given, by the lightness of a picture.
  def refined(values, refinements, **more)
    height, width = values.shape
    codes = values.reshape(values.size) * (space.white - space.black) + space.black
    matte(part("key", lightness_low: 1.0, lightness_soft: [1.0, 0.0]), width:, height:, rgb: Numo::NArray.vstack([codes] * 3), refinements:, **more)
  end

  def refinement(kind, **parameters) = {"kind" => kind, "parameters" => parameters.transform_keys(&:to_s)}

  def dots(*places, width: 100, height: 50) = Numo::SFloat.zeros(height, width).tap { |plane| places.each { |row, column| plane[row, column] = 1.0 } }

  it "grows and shrinks by so many pixels all round, and by parts of one" do
    grown = refined(dots([25, 50]), [refinement("grow", size: 0.12)])
    expect([grown[25, 56], grown[25, 57], grown[19, 50], grown[18, 50], grown[29, 54], grown[31, 56]]).to eq([1, 0, 1, 0, 1, 0])
    expect(refined(dots([25, 50]), [refinement("grow", size: 0.05)])[25, 53]).to be_within(1e-5).of(0.5)
    square = Numo::SFloat.zeros(50, 100).tap { |plane| plane[10..39, 30..69] = 1.0 }
    expect(refined(square, [refinement("grow", size: -0.1)]).sum).to be_within(0.01).of(20 * 30)
    back = refined(square, [refinement("grow", size: -0.1), refinement("grow", size: 0.1)])
    expect([back[25, 30], back[25, 29], back[10, 50]]).to eq([1, 0, 1])
  end

  it "blurs as a Gaussian does, without losing any of it" do
    line = Numo::SFloat.zeros(50, 100).tap { |plane| plane[true, 50..] = 1.0 }
    made = refined(line, [refinement("blur", size: 0.1)])
    [45, 49, 52, 60].each { |column| expect(made[25, column]).to be_within(0.02).of(0.5 * (1 + Math.erf((column - 49.5) / (5 * Math.sqrt(2))))) }
    expect(refined(dots([25, 50]), [refinement("blur", size: 0.04)]).sum).to be_within(0.01).of(1.0)
  end

  it "bends values by a curve through freely placed points, and turns them over" do
    ramp = Numo::SFloat.new(1, 101).seq / 100
    key = ramp.to_a[0].map { |share| 3 * share**2 - 2 * share**3 } # the key's own fall
    made = refined(ramp, [refinement("response", curve: [[0.25, 0.0], [0.75, 1.0]])]).to_a[0]
    made.each_with_index { |value, index| expect(value).to be_within(1e-4).of(((key[index] - 0.25) / 0.5).clamp(0, 1)) }
    expect([made[10], made[50], made[95]]).to match([0, be_within(0.01).of(0.5), 1])
    expect(refined(ramp, [refinement("invert")]).to_a[0][30]).to be_within(1e-5).of(1 - key[30])
  end

  it "takes islands away and fills holes that are no larger than a size, and keeps all others whole" do
    plane = Numo::SFloat.zeros(50, 100)
    plane[5..8, 5..8] = 1.0 # four across: goes
    plane[5..9, 20..24] = 1.0 # five: stays
    plane[40, 2..90] = 1.0 # thin, but long: stays
    plane[15..35, 50..80] = 1.0
    plane[20..23, 60..62] = 0.0 # a hole: filled
    plane[28..33, 60..65] = 0.0 # too large
    made = refined(plane, [refinement("specks", size: 0.08)])
    expect([made[6, 6], made[7, 22], made[40, 50], made[21, 61], made[30, 62], made[0, 0]]).to eq([0, 1, 1, 1, 0, 0])
    expect(made.sum).to eq(plane.sum - 16 + 12)
  end

  it "follows edges as the published filter does" do
    Numo::NArray.srand(11)
    light = Numo::SFloat.zeros(40, 60)
    light[true, 30..] = 0.6
    light += Numo::SFloat.new(40, 60).rand * 0.02
    codes = light.reshape(2400) * (space.white - space.black) + space.black
    loose = part("gradient", full: [-0.2, 0.0], none: [0.2, 0.0], invert: true)
    before, after = [[], [refinement("edges", size: 0.15, edge: 0.05)]].map { |refinements| matte(loose, width: 60, height: 40, rgb: Numo::NArray.vstack([codes] * 3), refinements:) }
    expect([before[20, 30] - before[20, 29], after[20, 30] - after[20, 29]]).to match([be < 0.1, be > 0.25])
    expect((after - guided(light.to_a, before.to_a, 6.0, 0.05**2)).abs[8..31, 14..45].max).to be < 2e-3
  end

  # The published equations, place by place, with a box that reaches radius pixels either way, the outermost in part.
  def guided(guide, matte, radius, epsilon)
    sigma2 = radius**2 / 3
    whole = (0.5 * Math.sqrt(12 * sigma2 + 1) - 0.5).floor
    edge = (2 * whole + 1) * (whole * (whole + 1) - 3 * sigma2) / (6 * (sigma2 - (whole + 1)**2))
    weights = (-whole - 1..whole + 1).to_h { |k| [k, (k.abs > whole) ? edge : 1.0] }
    total = weights.values.sum
    high, wide = guide.size, guide[0].size
    box = ->(plane) { (0...high).map { |r| (0...wide).map { |c| weights.sum { |dr, wr| weights.sum { |dc, wc| wr * wc * plane[(r + dr).clamp(0, high - 1)][(c + dc).clamp(0, wide - 1)] } } / total**2 } } }
    times = ->(a, b) { a.zip(b).map { |x, y| x.zip(y).map { |p, q| p * q } } }
    mi, mp, mip, mii = box[guide], box[matte], box[times[guide, matte]], box[times[guide, guide]]
    a = (0...high).map { |r| (0...wide).map { |c| (mip[r][c] - mi[r][c] * mp[r][c]) / (mii[r][c] - mi[r][c]**2 + epsilon) } }
    b = (0...high).map { |r| (0...wide).map { |c| mp[r][c] - a[r][c] * mi[r][c] } }
    ma, mb = box[a], box[b]
    Numo::SFloat.cast((0...high).map { |r| (0...wide).map { |c| (ma[r][c] * guide[r][c] + mb[r][c]).clamp(0.0, 1.0) } })
  end

  it "shows no boundary of windows, whatever stands in it, and looks on a proxy as on the master" do
    Numo::NArray.srand(2)
    soft = Mordant::Area::Gaussian.new(6.0)
    rgb = Numo::NArray.vstack(Array.new(3) { (soft.call(Numo::SFloat.new(240 * 120).rand, Mordant::Grade::Window.whole(240, 120)) - 0.5) * 3 + 0.5 })
    parts = [part("key", hue: 200.0, hue_width: 120.0, softness: 0.01), part("samples", samples: [[0.5, 0.5, 0.6]], distance: 0.1, calm: 0.01, strength: 0.7), circle(0.3).merge("mode" => "intersect", "strength" => 0.8)]
    refinements = [refinement("specks", size: 0.05), refinement("grow", size: 0.021), refinement("edges", size: 0.05), refinement("edges", size: 0.1, edge: 0.1), refinement("blur", size: 0.05), refinement("response", curve: [[0.1, 0.0], [0.8, 1.0]])]
    whole = matte(*parts, width: 240, height: 120, rgb:, refinements:)
    window = Mordant::Grade::Window.new(left: 71, top: 33, width: 60, height: 40)
    expect(matte(*parts, width: 240, height: 120, rgb:, refinements:, window:)).to eq(whole[33...73, 71...131])
    proxy = rgb.reshape(3, 60, 2, 120, 2).mean(2, 4).reshape(3, 7200)
    small = matte(*parts, width: 120, height: 60, rgb: Numo::SFloat.cast(proxy), refinements: refinements)
    expect((whole.reshape(60, 2, 120, 2).mean(1, 3) - small).abs.mean).to be < 0.012
  end

  it "is as none where it is neutral or off, bit for bit, and refuses what it does not know" do
    plane = Numo::SFloat.new(50, 100).rand
    off = Mordant::Matte.refinements.map { |kind| {"kind" => kind.id, "enabled" => kind.id != "invert"} }
    expect(refined(plane, off)).to eq(refined(plane, []))
    expect { refined(plane, [refinement("polish")]) }.to raise_error(Mordant::ParameterError, /refinements\[0\].kind: expected one of specks, grow, edges, blur, response, invert/)
  end
end
