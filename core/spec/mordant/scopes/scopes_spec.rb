# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Scopes::Waveform do
  def trace(frame, channel = :red) = described_class.trace(Mordant::Scopes::Signal.new(frame), channel)

  it "puts a ramp on its diagonal, exact to the bin" do
    trace = trace(Frames.ramp(width: 256, height: 4))
    expect(trace.shape).to eq([256, 256])
    expect((0...256).map { |column| trace[column, true].max_index }).to eq((0...256).to_a)
    expect(trace.max).to eq(4)
  end

  it "adds up to the pixels of the picture, also where it is clipped" do
    frame = Mordant::Frame.new(Numo::SFloat.new(3, 700 * 9).rand * 3 - 1, width: 700, height: 9, encoding: "srgb")
    expect(%i[luma red green blue].map { |channel| trace(frame, channel).sum }).to all(eq(6300))
  end

  it "weighs luma as the standard of the signal does" do
    red = [1.0, 0.0, 0.0]
    expect(trace(Frames.flat(red, encoding: "rec709-bt1886"), :luma)[0, true].max_index).to eq((0.2126 * 1023).round / 4)
    expect(trace(Frames.flat(red, encoding: "rec2100-pq"), :luma)[0, true].max_index).to eq((0.2627 * 1023).round / 4)
  end

  it "counts each pixel in its column at a quarter of its level, however wide the picture is" do
    [[320, 500], [257, 61], [100, 7]].each do |width, height|
      random = Random.new(width)
      codes = Numo::SFloat.cast(Array.new(3 * width * height) { random.rand(-0.1..1.1) }).reshape(3, width * height)
      counted = Hash.new(0)
      codes[0, true].to_a.each_with_index { |code, at| counted[[(at % width) * [width, 256].min / width, (code.clamp(0.0, 1.0) * 1023 + 0.5).floor / 4]] += 1 }
      trace = trace(Mordant::Frame.new(codes, width:, height:, encoding: "rec709-bt1886"), :red)
      expect(counted.to_h { |place, _| [place, trace[*place]] }).to eq(counted)
      expect(trace.sum).to eq(width * height)
    end
  end

  it "finds a single stray pixel, and a place for NaN" do
    frame = Frames.flat([0.5, 0.5, 0.5], width: 400, height: 300, encoding: "srgb")
    frame.rgb[1, 400 * 100 + 200] = 0.9
    frame.rgb[1, 400 * 100 + 300] = Float::NAN
    trace = trace(frame, :green)
    expect(trace[200 * 256 / 400, (0.9 * 1023).round / 4]).to eq(1)
    expect(trace[300 * 256 / 400, 0]).to eq(1)
    bright = Mordant::Scopes::Density.brightness(trace, typical: 500.0)
    expect(bright[128, (0.9 * 1023).round / 4]).to be >= Mordant::Scopes::Density::FAINTEST
    expect(bright[0, 0]).to eq(0)
  end
end

RSpec.describe Mordant::Scopes::Density do
  include Kernels

  # 0 of nothing, and of n counts 40 + 215 (1 - e^(-n / typical)), which no longer rises where a float cannot tell.
  it "rises with the count, up to full however many there are" do
    counts = Numo::UInt32[0, 1, 2, 7, 8, 60, 100, 140, 200, 4_000, 16_777_217, 2_000_000_000].tile(1500)
    wanted = counts.to_a.first(12).map { |count| count.zero? ? 0 : (40 + 215 * (1 - Math.exp(-count / 8.0))) }
    made = described_class.brightness(counts, typical: 8.0)
    expect(made.to_a.first(12)).to match(wanted.map { |level| be_between((level - 0.01).floor.clamp(0, nil), (level + 0.01).floor) })
    expect(made.to_a.first(12).last(4)).to eq([255] * 4)
    expect(made).to eq(one_by_one { described_class.brightness(counts, typical: 8.0) })
  end
end

RSpec.describe Mordant::Scopes::Vectorscope do
  def counts(*rgb, zoom: 1, encoding: "rec709-bt1886") = described_class.counts(Mordant::Scopes::Signal.new(Frames.flat(rgb, encoding:)), zoom:)

  def place(counts) = counts.max_index.divmod(256)

  # ITU-R BT.709, item 3.3: differences of 75 % red are -0.0859 and 0.375.
  it "puts patches of known chroma in their bins" do
    bin = ->(difference) { (difference / 1.12 * 255 + 128).floor }
    expect(place(counts(0.75, 0.0, 0.0))).to eq([bin[0.375], bin[-0.75 * 0.2126 / 1.8556]])
    expect(place(counts(0.0, 0.0, 1.0))).to eq([bin[-0.0722 / 1.5748], bin[0.5]])
    [0.0, 0.4, 1.0].each { |grey| expect(place(counts(grey, grey, grey))).to eq([128, 128]) }
  end

  it "stands where its targets say, at every zoom that holds them" do
    weights = Mordant::Colour.encoding("rec709-bt1886").luma_weights
    described_class.targets(weights).each do |target|
      rgb = described_class::TARGETS.fetch(target[:name]).map { |on| on * target[:level] }
      row, column = place(counts(*rgb))
      expect([column, row]).to eq([target[:cb], target[:cr]].map { |at| (at / 1.12 * 255 + 128).floor }), target.inspect
    end
    row, column = place(counts(0.5, 0.45, 0.42, zoom: 4))
    expect([row, column].map { |bin| bin != 128 }).to all(be(true))
  end

  it "adds up to the pixels, beyond the edges too" do
    frame = Mordant::Frame.new(Numo::SFloat.new(3, 500).rand * 4 - 1, width: 50, height: 10, encoding: "srgb")
    expect([1, 2, 4].map { |zoom| described_class.counts(Mordant::Scopes::Signal.new(frame), zoom:).sum }).to all(eq(500))
    expect { counts(0, 0, 0, zoom: 3) }.to raise_error(Mordant::ParameterError, /zoom/)
  end
end

RSpec.describe Mordant::Scopes::Histogram do
  it "counts every code of a ramp once a row, and every pixel" do
    signal = Mordant::Scopes::Signal.new(Frames.ramp(width: 1024, height: 3))
    expect(described_class.counts(signal, :green).to_a).to eq([3] * 1024)
    expect(described_class.counts(signal, :luma).sum).to eq(3072)
    expect(described_class.packed(signal).bytesize).to eq(4 * 1024 * 4)
  end
end

RSpec.describe Mordant::Scopes::Signal do
  let(:frame) { Mordant::Frame.new(Numo::SFloat.new(3, 60 * 40).rand, width: 60, height: 40, encoding: "rec709-bt1886") }

  # A picture of the region alone, made by hand.
  def cropped
    part = frame.rgb.reshape(3, 40, 60)[true, 10...30, 15...45].dup.reshape(3, 600)
    Mordant::Frame.new(part, width: 30, height: 20, encoding: frame.encoding)
  end

  it "measures a region as a picture of it alone" do
    wanted = {"traces" => true, "vectorscope" => 2, "histogram" => true, "solid" => "lab"}
    inside, alone = [described_class.new(frame, region: [0.25, 0.25, 0.5, 0.5]), described_class.new(cropped)].map { |signal| Mordant::Scopes::Instruments.new(signal, wanted) }
    expect(inside.parts).to eq(alone.parts)
    expect(inside.header).to eq(alone.header)
  end
end

RSpec.describe Mordant::Scopes::Solid do
  def of(*rgb, space: "codes", encoding: "rec709-bt1886") = described_class.new(Mordant::Scopes::Signal.new(Frames.flat(rgb, encoding:)), space:)

  it "has a point for every colour there is, however rare" do
    frame = Frames.flat([0.5, 0.5, 0.5], width: 100, height: 100, encoding: "rec709-bt1886")
    frame.rgb[true, 77] = Numo::SFloat[1.0, 0.02, 0.02]
    solid = described_class.new(Mordant::Scopes::Signal.new(frame), space: "codes")
    expect([solid.size, solid.colours.shape]).to eq([2, [2, 4]])
    expect(solid.colours.to_a.map(&:first).max).to be > 245
    expect(solid.flattened).to include("red at white" => 1, "green at black" => 0)
  end

  it "places colours in the space that is asked for" do
    expect(of(1.0, 1.0, 1.0).points.to_a[0]).to all(be_within(0.04).of(1.0))
    cb, cr, luma = of(0.75, 0.0, 0.0, space: "difference").points.to_a[0]
    expect([cb, cr, luma]).to match([be_within(0.04).of(-0.172), be_within(0.04).of(0.75), be_within(0.04).of(2 * 0.159 - 1)])
    a, b, lightness = of(0.5, 0.5, 0.5, space: "lab").points.to_a[0]
    expect([a, b]).to all(be_within(0.005).of(0.0))
    expect(lightness).to be_within(0.04).of((116 * (0.5**2.4)**(1 / 3.0) - 16) / 50 - 1)
  end

  it "has the edges of the codes' cube for bounds, and counts what is flattened on its faces" do
    expect(of(0, 0, 0).bounds.map(&:size)).to eq([9] * 12)
    expect(of(0, 0, 0).bounds.flatten.minmax).to eq([-1.0, 1.0])
    expect(of(1.4, 0.5, -0.2).flattened.select { |_, count| count.positive? }).to eq("red at white" => 64, "blue at black" => 64)
    limited = described_class.new(Mordant::Scopes::Signal.new(Frames.flat([0, 0, 0], encoding: "rec2020-bt1886")), space: "codes", limit: Mordant::Colour::Primaries::REC709).bounds
    expect(limited.size).to eq(24)
    # ITU-R BT.2087, table 2: BT.709 red is 0.6274, 0.0691, 0.0164 of BT.2020 light
    red = [0.6274, 0.0691, 0.0164].map { |light| be_within(1e-3).of(light**(1 / 2.4) * 2 - 1) }
    expect(limited.drop(12).flatten(1)).to include(match(red))
    expect { of(0, 0, 0, space: "moon") }.to raise_error(Mordant::ParameterError, /space/)
  end
end

RSpec.describe Mordant::Scopes::Selection do
  let(:ramp) { Mordant::Scopes::Signal.new(Frames.ramp(width: 100, height: 2)) }

  def chosen(signal, **document) = described_class.new(document.transform_keys(&:to_s)).weights(signal).reshape(signal.height, signal.width)[0, true].to_a.each_index.select { |i| described_class.new(document.transform_keys(&:to_s)).weights(signal)[i] == 1.0 }

  it "lights the pixels under a part of a waveform or a histogram" do
    expect(chosen(ramp, instrument: "waveform", channel: "red", from: [0.0, 0.6], to: [1.0, 0.4])).to eq((40..59).to_a)
    expect(chosen(ramp, instrument: "waveform", channel: "luma", from: [0.5, 0.0], to: [0.55, 1.0])).to eq((50..54).to_a)
    expect(chosen(ramp, instrument: "histogram", channel: "blue", from: 0.1, to: 0.2)).to eq((10..19).to_a)
  end

  it "lights the pixels of a chroma and of a cell of the solid" do
    frame = Frames.flat([0.4, 0.4, 0.4], encoding: "rec709-bt1886")
    frame.rgb[true, 3] = Numo::SFloat[0.8, 0.1, 0.1]
    signal = Mordant::Scopes::Signal.new(frame)
    expect(chosen(signal, instrument: "vectorscope", from: [-0.3, 0.2], to: [0.0, 0.5])).to eq([3])
    expect(chosen(signal, instrument: "solid", cell: [0.8, 0.1, 0.1], reach: 0.05)).to eq([3])
  end

  it "finds exactly the pixels that an instrument counts there" do
    frame = Mordant::Frame.new(Numo::SFloat.new(3, 4000).rand, width: 80, height: 50, encoding: "rec709-bt1886")
    signal = Mordant::Scopes::Signal.new(frame)
    counted = Mordant::Scopes::Histogram.counts(signal, :green)[256..511].sum
    found = described_class.new("instrument" => "histogram", "channel" => "green", "from" => 255.5 / 1023, "to" => 511.5 / 1023).weights(signal).sum
    expect(found).to eq(counted)
  end

  it "refuses what no instrument has" do
    [nil, {"instrument" => "ear"}, {"instrument" => "waveform", "channel" => "x", "from" => [0, 0], "to" => [1, 1]}, {"instrument" => "histogram", "channel" => "red", "from" => Float::NAN, "to" => 1}]
      .each { |document| expect { described_class.new(document).weights(ramp) }.to raise_error(Mordant::ParameterError, /light/) }
  end
end

RSpec.describe Mordant::Scopes::Scale do
  def scale(encoding, rendering = nil) = described_class.new(Mordant::Grade::View.new(encoding:, rendering:))

  # ITU-R BT.1886: 100 cd/m2 at full code. SMPTE ST 2084: 100 cd/m2 at 0.5081, 1000 at 0.7518.
  it "tells light as the standards do" do
    expect(scale("rec709-bt1886").light([0.0, 0.5, 1.0])).to match([be_within(1e-6).of(0), be_within(0.01).of(100 * 0.5**2.4), be_within(1e-6).of(100)])
    expect(scale("rec2100-pq").light([0.5081, 0.7518])).to match([be_within(0.1).of(100), be_within(1.0).of(1000)])
  end

  it "marks light where its code stands, as far as the view reaches" do
    marks = scale("rec2100-pq").to_h[:luminance].to_h { |at, words| [words, at] }
    expect(marks).to include("100" => be_within(2e-3).of(0.5081), "1000" => be_within(2e-3).of(0.7518), "10000" => be_within(1e-3).of(1.0))
    expect(scale("rec709-bt1886").to_h[:luminance].last).to eq([1.0, "100"])
  end

  it "counts codes in either range" do
    told = scale("rec709-bt1886").to_h
    expect(told[:code].last).to eq([1.0, "1023"])
    expect([told[:legal].first, told[:legal].last]).to eq([[0, "64"], [1, "940"]])
  end
end

RSpec.describe Mordant::Scopes::ToneTrace do
  let(:space) { Mordant::Colour::WorkingSpace.default }

  it "reads a cast at the tone where it is" do
    span = space.white - space.black
    base = space.black + 0.5 * span
    trace = described_class.of(Frames.flat([base + 0.04 * span, base, base - 0.04 * span])).to_h
    bin = trace[:light].index(1.0)
    expect(bin).to be_within(1).of(described_class::BINS / 2)
    expect(trace[:warmth][bin]).to be_within(1e-4).of(0.08)
    expect(trace[:tint][bin]).to be_within(1e-4).of(0.0)
    expect(trace[:warmth].compact.size).to eq(1)
  end

  it "does not fail on NaN and infinities" do
    frame = Frames.flat([Float::NAN, Float::INFINITY, 0.4])
    expect(described_class.of(frame).to_h[:light].max).to eq(1.0)
  end
end
