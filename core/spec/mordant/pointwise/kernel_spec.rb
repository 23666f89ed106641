# frozen_string_literal: true

require "spec_helper"

# What is compiled gives the numbers of Numo to the last bit, so that it may stand in for it anywhere.
RSpec.describe Mordant::Pointwise::Kernel do
  def ran(kernel, *planes, kept: Numo::SFloat)
    out = "\0".b * (planes.first.size * kept::ELEMENT_BYTE_SIZE)
    fine = kernel.run(planes.first.size, planes.map(&:to_binary), [out])
    [kept.from_binary(out), fine]
  end

  let(:ramp) { ->(size) { Numo::SFloat.new(size).seq / 4 - 1 } }

  it "is here: the machine has what it is compiled with" do
    expect(described_class.here?).to be(true)
  end

  it "does what is said, for any number of pixels from sixteen on" do
    kernel = described_class.new(%i[floats floats]) { |a, b| [((a * 2.0 + b) / 4.0 - 1.0).clip(-0.5, 3.0)] }
    [16, 17, 31, 32, 33, 1000].each do |size|
      a, b = ramp.call(size), Numo::SFloat.new(size).seq
      found, fine = ran(kernel, a, b)
      expect([found.to_a, fine]).to eq([Array.new(size) { |i| ((i / 4.0 - 1) * 2 + i).fdiv(4).-(1).clamp(-0.5, 3.0) }, true])
    end
  end

  it "knows numbers before an operator, the larger and the smaller of two, roots, sizes, and planes in place" do
    kernel = described_class.new(%i[floats floats]) do |a, b|
      (a.inplace + 1.0).out_of_place! # a itself from here on
      [(1.0 - a).abs.root + a.clip(b, nil) + a.clip(nil, b) + a.dup]
    end
    found, = ran(kernel, Numo::SFloat.cast([3.0, -5.0] * 8), Numo::SFloat.cast([1.0, 2.0] * 8))
    # 4: root of 3, larger 4, smaller 1, itself 4; -4: root of 5, larger 2, smaller -4, itself -4
    expect(found.to_a.first(2)).to match([be_within(1e-6).of(Math.sqrt(3) + 4 + 1 + 4), be_within(1e-6).of(Math.sqrt(5) + 2 - 4 - 4)])
  end

  it "keeps whole numbers of 16 bits, cut off and held, NaN as 0" do
    kernel = described_class.new([:floats]) { |plane| [plane.code] }
    values = [0.0, 0.99, 1.0, 65_535.0, 70_000.0, -3.0, Float::NAN, Float::INFINITY] * 2
    found, = ran(kernel, Numo::SFloat.cast(values), kept: Numo::UInt16)
    expect(found.to_a.first(8)).to eq([0, 0, 1, 65_535, 65_535, 0, 0, 65_535])
  end

  it "says whether a float is NaN, or a mask holds anywhere" do
    kernel = described_class.new([:floats]) { |plane| [plane * 1.0, (plane < -1.0) | (plane > 1.0)] }
    tries = {0.5 => true, 1.5 => false, -2.0 => false, Float::NAN => false}
    tries.each { |odd, fine| expect(ran(kernel, Numo::SFloat.zeros(20).tap { |plane| plane[19] = odd }).last).to be(fine), odd.to_s }
  end

  it "makes half floats as they are worked out, bit for bit, of every sign and exponent" do
    bits = Numo::UInt32.cast(Numo::UInt64.new(1 << 20).seq * 4096 + 0x7ff)
    floats = Numo::SFloat.from_binary(bits.to_binary)
    expect(Mordant::Pointwise::Compiler.halves?).to be(true)
    expect(Mordant::Media::Half.bits(floats)).to eq(Mordant::Media::Half.worked_out(floats))
  end

  it "is compiled once for all numbers" do
    made = ->(by) { described_class.new([:floats]) { |plane| [plane * by - by * 3.0 + 0.125] } }
    expect(ran(made.call(2.0), ramp.call(16)).first[4]).to eq(-5.875)
    allow(Mordant::Pointwise::Listing).to receive(:new).and_raise("compiled again")
    expect(ran(made.call(5.0), ramp.call(16)).first[4]).to eq(-14.875)
  end

  it "goes on working when what was compiled is not kept any more" do
    first = described_class.new([:floats]) { |plane| [plane * 3.0] }
    expect(ran(first, ramp.call(16)).first[0]).to eq(-3.0)
    stub_const("Mordant::Pointwise::Compiler::KEPT", 2)
    6.times { |count| ran(described_class.new([:floats]) { |plane| [(0..count).reduce(plane) { |sum, _| sum + 1.0 }] }, ramp.call(16)) }
    GC.start
    expect(ran(first, ramp.call(16)).first[0]).to eq(-3.0)
  end

  it "names what it cannot compile" do
    broken = Mordant::Pointwise::Recording.new([:floats]) { |plane| [plane + 1.0] }
    allow(Mordant::Pointwise::Listing).to receive(:new).and_return("define nonsense")
    expect { Mordant::Pointwise::Compiler.function(broken.tap { |recording| recording.add(:constant, 7) }) }.to raise_error(Mordant::Error, /LLVM: .*expected/)
  end

  it "is done without where the library is not installed" do
    elsewhere = Mordant::Pointwise::Compiler.clone.tap { |copy| copy.remove_instance_variable(:@library) if copy.instance_variable_defined?(:@library) }
    stub_const("Mordant::Pointwise::Compiler::LIBRARY", "libnothing.so.0")
    expect(elsewhere.here?).to be(false)
    expect(elsewhere.halves?).to be(false)
  end
end
