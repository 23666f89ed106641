# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Pointwise::Chain do
  let(:double) { Mordant::Pointwise::Curve.new(->(x) { x * 2.0 }) }
  let(:swap) { Mordant::Pointwise::Matrix.new([[0.0, 1.0, 0.0], [1.0, 0.0, 0.0], [0.0, 0.0, 1.0]]) }
  let(:rgb) { Numo::SFloat[[0.1, 0.2], [0.3, 0.4], [0.5, 0.6]] }

  it "fuses neighbouring curves and neighbouring matrices" do
    chain = described_class.new([double, double, swap, Mordant::Pointwise::Matrix.new([[2.0, 0, 0], [0, 2.0, 0], [0, 0, 2.0]])])
    expect(chain.operations.map(&:class)).to eq([Mordant::Pointwise::Curve, Mordant::Pointwise::Matrix])
    expect(chain.exact(rgb).to_a).to match_rows([[2.4, 3.2], [0.8, 1.6], [4.0, 4.8]], absolute: 1e-6)
  end

  it "leaves out matrices that undo each other" do
    expect(described_class.new([swap, swap])).to be_empty
  end

  it "never writes to what it is given" do
    kept = rgb.dup
    described_class.new([double, swap]).call(rgb)
    expect(rgb).to eq(kept)
  end

  it "treats tiles as it treats the whole" do
    codes = Frames.codes(width: 400, height: 300).rgb # two and a half tiles
    chain = Mordant::Grade::Plan.new(recipe: Frames.recipe(exposure: 0.5, tint: 20, saturation: 1.2), source: "log3g10-wgrgb").chain
    boundary = Mordant::Pointwise::TILE
    stretch = (boundary - 5)...(boundary + 5)
    expect(chain.from_codes(codes)[true, stretch]).to eq(chain.from_codes(codes[true, stretch].dup))
  end

  it "makes of a tile that is read quickly what it makes with care, also where numbers are none" do
    make = -> { Mordant::Grade::Output.new(view: Mordant::Grade::View::STANDARD).chain }
    log = Frames.codes(width: 300, height: 300).rgb.then { |codes| Numo::SFloat.cast(codes) / 65_535 }
    careful = make.call.tap { |chain| chain.define_singleton_method(:quickly) { |*| nil } }.call(log)
    fresh = make.call
    expect([fresh.call(log), fresh.call(log)]).to all(eq(careful))
    log[1, 77] = Float::NAN
    odd = fresh.call(log)
    expect(odd[true, 77].isnan.all?).to be(true)
    expect(odd[true, 78..]).to eq(careful[true, 78..])
  end

  it "refuses anything but three rows of floats" do
    expect { described_class.new([]).call(Numo::DFloat.zeros(3, 2)) }.to raise_error(Mordant::ShapeError, /SFloat of shape \[3, n\]/)
  end
end

RSpec.describe "interpolated tables" do
  let(:light) { Numo::SFloat.cast(2.0**(Numo::DFloat.new(20_000).rand * 34 - 20)) }

  it "meet a power of light within 1e-5 of its value, both signs" do
    table = Mordant::Pointwise::FloatTable.new(->(x) { Mordant::Colour::Piecewise.select(x < 0, -(x.abs**0.4), x.abs**0.4) })
    exact = Numo::DFloat.cast(light)**0.4
    expect(((table.call(light) - exact) / exact).abs.max).to be < 1e-5
    expect(((table.call(light * -1) + exact) / exact).abs.max).to be < 1e-5
  end

  it "meet the decoding of a log encoding within 4e-6 of its value" do
    decode = Mordant::Colour::Transfer::Acescct.method(:decode)
    code = Numo::SFloat.new(20_000).rand * 1.3 + 0.16
    exact = decode.call(Numo::DFloat.cast(code))
    expect(((Mordant::Pointwise::UniformTable.new(decode).call(code) - exact) / exact).abs.max).to be < 4e-6
  end

  it "meet log codes to log codes within a tenth of a 16-bit code" do
    curve = ->(x) { x * x * 4.0 + x * 0.2 } # slope changes by 8 a unit
    code = Numo::SFloat.new(20_000).rand * 1.3
    found = Mordant::Pointwise::UniformTable.new(curve, fine: false).call(code)
    expect((found - curve.call(Numo::DFloat.cast(code))).abs.max).to be < 2e-6
  end

  it "come out the same whichever values were read first" do
    function = ->(x) { x * x + 1.0 }
    values = Numo::SFloat.new(5000).rand * 3 - 0.9
    [Mordant::Pointwise::UniformTable, Mordant::Pointwise::FloatTable].each do |kind|
      late = kind.new(function)
      [0.3, 0.9, -0.2].each { |x| late.call(Numo::SFloat[x, Float::NAN]) }
      expect(late.call(values)).to eq(kind.new(function).call(values))
      expect(late.call(Numo::SFloat[Float::NAN, 0.5]).to_a).to match([be_nan, be_within(1e-4).of(1.25)])
    end
  end

  it "define every float: NaN stays, infinities and the largest values hold the end" do
    odd = Numo::SFloat[Float::NAN, Float::INFINITY, 3.0e38, 2.0**18, 0.0, -0.0, -Float::INFINITY]
    found = Mordant::Pointwise::FloatTable.new(->(x) { x * 3.0 }).call(odd).to_a
    expect(found[0]).to be_nan
    expect(found[1..]).to eq([3.0 * 2**17, 3.0 * 2**17, 3.0 * 2**17, 0.0, 0.0, -3.0 * 2**17])
    uniform = Mordant::Pointwise::UniformTable.new(->(x) { x * 3.0 }).call(odd[0..1].concatenate(Numo::SFloat[10.0, -10.0])).to_a
    expect(uniform[0]).to be_nan
    expect(uniform[2]).to be_within(1e-3).of(30.0)
    expect(uniform[3]).to be_within(1e-3).of(-30.0)
  end

  it "take source codes without interpolation" do
    curve = Mordant::Pointwise::Curve.new(Mordant::Colour::Transfer::SLog3.method(:decode))
    codes = Numo::UInt16.new(65_536).seq
    exact = Numo::SFloat.cast(curve.functions[0].call(Numo::DFloat.cast(codes) / 65_535))
    expect(curve.code_table.call([codes, codes, codes]).first).to eq(exact)
  end
end
