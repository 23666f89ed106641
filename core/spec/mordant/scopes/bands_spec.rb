# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Scopes::Bands do
  let(:space) { Mordant::Colour::WorkingSpace.default }

  def bands(quantity: "luma", list: [[0.25, 0.5, "#ff0000"], [0.5, 0.75, "#0000ff"]], **more)
    described_class.new({"name" => "Trial", "quantity" => quantity, "bands" => list.map { |from, to, colour| {"from" => from, "to" => to, "colour" => colour} }, **more.transform_keys(&:to_s)})
  end

  def picture(frame, unit: 100.0) = Mordant::Scopes::Quantity::Picture.new(working: frame, space:, unit:)

  # A grey ramp of display codes, painted.
  def painted(set, frame = Frames.ramp(width: 100, height: 1), working: frame) = set.paint(frame, Mordant::Scopes::Signal.new(frame), picture(working)).rgb

  it "paints what lies within a band, exactly from limit to limit" do
    rgb = painted(bands)
    inside = (0...100).select { |i| rgb[0, i] > 0.99 }
    ramp = ->(i) { i / 99.0 }
    expect([ramp[inside.first] >= 0.25, ramp[inside.first - 1] < 0.25, ramp[inside.last] < 0.5, ramp[inside.last + 1] >= 0.5]).to all(be(true))
    expect(rgb[2, 60]).to be_within(1e-6).of(1.0)
  end

  it "leaves the rest in grey or as it is" do
    expect(painted(bands)[true, 90].to_a.uniq.size).to eq(1)
    expect(painted(bands(rest: "picture"))[1, 90]).to be_within(1e-6).of(90 / 99.0)
    expect(painted(bands(opacity: 0.0, rest: "picture")).to_a).to eq(Frames.ramp(width: 100, height: 1).rgb.to_a)
  end

  it "fades at its limits, and goes from colour to colour" do
    soft = painted(bands(list: [[0.4, 0.6, "#ff0000"]], softness: 0.5))
    expect(soft[0, 40].between?(0.4, 0.9)).to be(true)
    expect(soft[0, 50]).to be_within(0.01).of(1.0)
    blended = painted(bands(join: "blended"))
    expect([blended[0, 49], blended[2, 49]]).to all(be_within(0.03).of(0.5))
  end

  it "counts the share of each band" do
    set = bands
    frame = Frames.ramp(width: 100, height: 1)
    expect(set.shares(Mordant::Scopes::Signal.new(frame), picture(frame))).to eq([0.25, 0.25])
  end

  it "measures light, saturation, hue and stops" do
    read = lambda do |id, *rgb, encoding: "rec709-bt1886", unit: 100.0|
      frame = Frames.flat(rgb, width: 1, height: 1, encoding:)
      Mordant::Scopes::Quantity.fetch(id).read(Mordant::Scopes::Signal.new(frame), picture(frame, unit:))[0]
    end
    expect(read["light", 0.5, 0.5, 0.5]).to be_within(0.01).of(100 * 0.5**2.4)
    expect(read["light", 0.7518, 0.7518, 0.7518, encoding: "rec2100-pq"]).to be_within(1.5).of(1000)
    expect(read["saturation", 0.0, 0.0, 1.0]).to be_within(0.01).of(2 * Math.hypot(0.5, 0.0722 / 1.5748))
    expect(read["hue", 1.0, 0.0, 0.0]).to be_within(0.1).of(103.0)
    expect(read["hue", 0.4, 0.4, 0.4].nan?).to be(true)
    code = space.code_at(2.0)
    expect(read["stops", code, code, code, encoding: "acescct"]).to be_within(1e-3).of(2.0)
  end

  it "can be relative to the picture's own most" do
    dim = Frames.ramp(width: 100, height: 1)
    dim = dim.with(dim.rgb * 0.5)
    list = [[0.5, 1.01, "#00ff00"]]
    expect([painted(bands(list:), dim), painted(bands(list:, scale: "relative"), dim)].map { |rgb| rgb[1, true].gt(0.9).count_true }).to eq([1, 50])
  end

  it "refuses a set that is faulty, and says where" do
    [[{"quantity" => "moon"}, Mordant::UnknownIdError, /moon/], [{"bands" => []}, nil, /bands.bands/], [{"name" => ""}, nil, /name/], [{"opacity" => 2}, nil, /opacity/], [{"x" => 1}, nil, /found "x"/],
      [{"bands" => [{"from" => 0, "to" => 1, "colour" => "red"}]}, nil, /bands\[0\].colour/], [{"bands" => [{"from" => 1, "to" => 0, "colour" => "#000000"}]}, nil, /bands\[0\].to/],
      [{"bands" => [{"from" => 0, "to" => Float::NAN, "colour" => "#000000"}]}, nil, /bands\[0\].to/],
      [{"bands" => [[0, 0.6], [0.5, 1]].map { |from, to| {"from" => from, "to" => to, "colour" => "#000000"} }}, nil, /do not overlap/]].each do |change, kind, words|
      expect { described_class.new({**bands.to_h, **change}) }.to raise_error(kind || Mordant::ParameterError, words)
    end
  end

  describe "sets" do
    around { |example| Dir.mktmpdir { |folder| Mordant::Library.root.then { |before| (Mordant::Library.root = folder) && example.run && (Mordant::Library.root = before) } } }

    it "are ours and the person's, kept as open files" do
      expect(Mordant::Scopes::BandSets.all.map { |set| set["name"] }).to include("Key and fill", "Ten equal zones", "Levels of light")
      Mordant::Scopes::BandSets.keep(bands.to_h)
      expect(Mordant::Scopes::BandSets.all.last).to include("name" => "Trial", "own" => true, "quantity" => "luma")
      expect(JSON.parse(File.read(Dir[File.join(Mordant::Library.bands, "*.json")].first))["bands"].size).to eq(2)
      Mordant::Scopes::BandSets.drop("Trial")
      expect(Mordant::Scopes::BandSets.all.none? { |set| set["own"] }).to be(true)
      expect { Mordant::Scopes::BandSets.keep(bands.to_h.merge("name" => "Key and fill")) }.to raise_error(Mordant::ParameterError, /of your own/)
    end
  end
end

RSpec.describe Mordant::Scopes::Clipping do
  it "marks a channel at the top and all at the bottom, in stripes, and nothing else" do
    frame = Mordant::Frame.new(Numo::SFloat[[1.0, 0.0, 0.0, 0.9994, 0.5] * 8, [0.5, 0.0, 0.4, 0.5, 0.5] * 8, [0.5, 0.0, 0.4, 0.5, 0.5] * 8], width: 5, height: 8, encoding: "rec709-bt1886")
    signal = Mordant::Scopes::Signal.new(frame)
    high, low = described_class.pixels(signal)
    expect([high[0...5].to_a, low[0...5].to_a]).to eq([[1, 0, 0, 0, 0], [0, 1, 0, 0, 0]])
    marked = described_class.paint(frame, signal)
    changed = Numo::Int32.cast((marked.rgb - frame.rgb).abs.sum(0).gt(1e-6))
    expect(changed.reshape(8, 5).sum(0).to_a).to eq([4, 4, 0, 0, 0])
  end
end

RSpec.describe Mordant::Scopes::Bands do
  # Luma of equal red, green and blue is their code.
  def painted(levels, **document)
    planes = Numo::SFloat[levels, levels, levels]
    frame = Mordant::Frame.new(planes, width: levels.size, height: 1, encoding: "rec709-bt1886")
    signal = Mordant::Scopes::Signal.new(frame)
    set = described_class.new({"name" => "x", "quantity" => "luma", "rest" => "picture", **document.transform_keys(&:to_s)})
    set.paint(frame, signal, Mordant::Scopes::Quantity::Picture.new(working: frame, space: Mordant::Colour::WorkingSpace.default, unit: 100.0)).rgb
  end

  let(:bands) do
    [{"from" => 0.0, "to" => 0.4, "colour" => "#ff0000", "opacity" => 0.5}, {"from" => 0.4, "to" => 0.8, "colour" => "#00ff00", "join" => "blended"}, {"from" => 0.8, "to" => 1.2, "colour" => "#0000ff"}]
  end

  it "has an opacity for each band" do
    found = painted([0.2, 0.6], bands: bands.first(2).map { |band| band.except("join") })
    expect(found[true, 0].to_a).to match([be_within(1e-5).of(0.6), be_within(1e-5).of(0.1), be_within(1e-5).of(0.1)])
    expect(found[true, 1].to_a).to match([be_within(1e-5).of(0.0), be_within(1e-5).of(1.0), be_within(1e-5).of(0.0)])
  end

  it "meets hard at one limit and blended at another" do
    found = painted([0.39, 0.41, 0.8], bands:)
    expect(found[true, 0].to_a).to match([be_within(1e-3).of(0.695), be_within(1e-3).of(0.195), be_within(1e-3).of(0.195)])
    expect(found[true, 1].to_a).to match([be_within(1e-3).of(0.0), be_within(1e-3).of(1.0), be_within(1e-3).of(0.0)])
    expect(found[true, 2].to_a).to match([be_within(1e-3).of(0.0), be_within(1e-3).of(0.5), be_within(1e-3).of(0.5)])
  end

  it "refuses an opacity or a join that is none, and keeps those it takes" do
    expect(described_class.new({"name" => "x", "quantity" => "luma", "bands" => bands}).to_h["bands"].first).to include("opacity" => 0.5)
    [["opacity", 2], ["opacity", "x"], ["join", "soft"]].each do |key, value|
      expect { described_class.new({"name" => "x", "quantity" => "luma", "bands" => [bands.last.merge(key => value)]}) }.to raise_error(Mordant::ParameterError, /bands\.bands\[0\]\.#{key}/)
    end
  end
end
