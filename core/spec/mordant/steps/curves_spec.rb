# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Steps::Curves do
  subject { described_class.new({luma: [[0, 0.02], [0.5, 0.6], [1, 1]], red: [[0, 0], [1, 0.95]], hue_hue: [[0.1, 0.05]], hue_saturation: [[0.0, 0.2], [0.5, -0.3]]}) }

  let(:space) { Mordant::Colour::WorkingSpace.default }
  let(:span) { space.white - space.black }

  it_behaves_like "a pointwise step"

  def run(step, *pixels)
    Mordant::Pointwise::Chain.new(described_class.new(step).operations(space)).exact(Numo::DFloat.cast(pixels).transpose.dup).transpose.to_a
  end

  def tone(step, at) = (run(step, [at * span + space.black] * 3)[0].sum / 3 - space.black) / span

  it "goes through its points, and straight on beyond the ends" do
    points = [[0.1, 0.05], [0.5, 0.65], [0.9, 0.95]]
    points.each { |x, y| expect(tone({luma: points}, x)).to be_within(1e-7).of(y) }
    slope = (0.65 - 0.05) / 0.4
    expect(tone({luma: points}, 0.0)).to be_within(1e-7).of(0.05 - 0.1 * slope)
  end

  it "bends every channel by luma, and one by its own" do
    red, green, blue = run({red: [[0, 0], [1, 0.5]]}, [0.5, 0.5, 0.5])[0]
    expect([green, blue]).to eq([0.5, 0.5])
    expect((red - space.black) / span).to be_within(1e-7).of((0.5 - space.black) / span / 2)
  end

  it "moves one hue and leaves its opposite" do
    red, cyan = [0.6, 0.4, 0.4], [0.4, 0.6, 0.6]
    weak = run({hue_saturation: [[0.0, -1.0], [0.25, 0.0], [0.75, 0.0]]}, red, cyan)
    expect(weak[0].max - weak[0].min).to be < 1e-9
    expect(weak[1]).to match(cyan.map { |x| be_within(1e-7).of(x) })
    turned = run({hue_hue: [[0.0, 1.0 / 6], [0.2, 0.0], [0.8, 0.0]]}, red)[0]
    expect([turned[0] - turned[2], turned[1] - turned[2]]).to all(be_within(1e-3).of(0.2)) # red becomes yellow
    light = run({hue_luminance: [[0.0, 0.1], [0.25, 0.0], [0.75, 0.0]]}, red, cyan)
    expect(light[0].zip(red).map { |a, b| a - b }).to all(be_within(1e-7).of(0.1 * span))
    expect(light[1]).to match(cyan.map { |x| be_within(1e-7).of(x) })
  end

  it "tells weak colours from strong ones, dark from light" do
    weak, strong = [0.42, 0.4, 0.4], [0.7, 0.4, 0.4]
    found = run({saturation_saturation: [[0.05, 0.0], [0.25, -0.5]]}, weak, strong)
    expect(found[0]).to match(weak.map { |x| be_within(1e-7).of(x) })
    expect(found[1][0] - found[1][1]).to be_within(1e-7).of(0.15)
    dark = run({luminance_saturation: [[0.2, -1.0], [0.6, 0.0]]}, [0.16, 0.14, 0.14], [0.7, 0.6, 0.6])
    expect(dark[0].max - dark[0].min).to be < 1e-9
    expect(dark[1]).to match([0.7, 0.6, 0.6].map { |x| be_within(1e-7).of(x) })
  end

  it "leaves grey alone whatever the hue curves say" do
    grey = Numo::DFloat.new(1, 50).seq.tile(3, 1) / 60
    out = Mordant::Pointwise::Chain.new(described_class.new({hue_hue: [[0, 0.2]], hue_saturation: [[0, 1.0]], hue_luminance: [[0, 0.3]]}).operations(space)).exact(grey)
    expect((out - grey).abs.max).to be < 1e-12
  end

  it "refuses points that fall back, crowd or leave the range, by their place" do
    {"p.luma" => [[0.5, 0.5], [0.4, 0.6]], "p.luma[0]" => [[0.5]], "p.luma[1]" => [[0, 0], [0.5, 9]], "p.hue_hue[0]" => [[1.5, 0]]}.each do |path, points|
      expect { described_class.new({path[/\w+(?=\[|\z)/] => points}, path: "p") }.to raise_error(Mordant::ParameterError) { |error| expect(error.path).to eq(path) }
    end
    expect { described_class.new({luma: [[0, Float::NAN]]}) }.to raise_error(Mordant::ParameterError, /a place and a value/)
    expect { described_class.new({luma: Array.new(33) { |i| [i / 40.0, 0] }}) }.to raise_error(Mordant::ParameterError, /at most 32 points/)
  end
end

RSpec.describe Mordant::Declared::Spline do
  it "never overshoots its points" do
    Random.srand(4)
    20.times do
      points = Array.new(8) { |i| [i / 7.0 + rand / 30, rand] }
      x = Numo::DFloat.new(2000).seq / 1999 * (points.last[0] - points.first[0]) + points.first[0]
      points.each_cons(2) do |(x0, y0), (x1, y1)|
        within = x[(x >= x0) & (x <= x1)]
        y = described_class.new(points).call(within)
        expect([y.min - [y0, y1].min, [y0, y1].max - y.max].min).to be > -1e-12
      end
    end
  end

  it "rises wherever its points do" do
    y = described_class.new([[0, 0], [0.1, 0.4], [0.11, 0.41], [0.9, 0.95], [1, 1]], straight: true).call(Numo::DFloat.new(5000).seq / 4000 - 0.1)
    expect((y[1..] - y[0...-1]).min).to be > 0.0
  end

  it "meets itself on a circle" do
    spline = described_class.new([[0.1, 0.3], [0.9, -0.2]], round: true)
    expect(spline.call(Numo::DFloat[0.0])[0]).to be_within(1e-12).of(spline.call(Numo::DFloat[1.0])[0])
    expect(spline.call(Numo::DFloat[0.9999999])[0]).to be_within(1e-5).of(spline.call(Numo::DFloat[0.0000001])[0])
    expect(described_class.new([[0.4, 0.7]], round: true).call(Numo::DFloat[0.0, 0.9]).to_a).to eq([0.7, 0.7])
  end
end
