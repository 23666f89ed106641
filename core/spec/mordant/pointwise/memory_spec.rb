# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Pointwise::Memory do
  let(:numbers) { Numo::SFloat.new(3, 40).seq }

  def there(address, count) = Fiddle::Pointer.new(address)[0, count * 4].unpack("f*")

  it "finds numbers where they lie, of an array, of a row and of a part of a row" do
    expect(there(described_class.address(numbers), 120)).to eq((0...120).to_a)
    expect(there(described_class.address(numbers[1, true]), 40)).to eq((40...80).to_a)
    expect(there(described_class.address(numbers[2, 7...11]), 4)).to eq([87, 88, 89, 90])
    expect(described_class.address(77)).to eq(77)
  end

  it "is written to there, and makes what nobody has made room for" do
    row = numbers[1, 5...9]
    Fiddle::Pointer.new(described_class.address(row, written: true))[0, 8] = [-1.0, -2.0].pack("f2")
    expect(numbers[1, 4...8].to_a).to eq([44, -1, -2, 47])
    fresh = Numo::UInt16.new(4)
    Fiddle::Pointer.new(described_class.address(fresh, written: true))[0, 8] = [1, 2, 3, 65_535].pack("S4")
    expect(fresh.to_a).to eq([1, 2, 3, 65_535])
  end

  it "refuses numbers that lie apart, which only a copy brings together" do
    [numbers[true, 3...5], numbers.transpose, numbers[0, (0..30) % 2]].each do |apart|
      expect { described_class.address(apart) }.to raise_error(Mordant::ShapeError, /lie together/)
      expect(there(described_class.address(copy = described_class.together(apart)), 4)).to eq(copy.to_a.flatten.first(4))
    end
    expect(described_class.together(row = numbers[0, true])).to equal(row)
    expect { described_class.address(numbers.freeze, written: true) }.to raise_error(RuntimeError, /frozen/)
  end

  it "lets kernels read rows, and what lies apart, and leave alone what lies around" do
    kernel = Mordant::Pointwise::Kernel.new(%i[floats floats]) { |a, b| [a + b] }
    skip "no compiler" unless Mordant::Pointwise::Kernel.here?

    out = Numo::SFloat.zeros(3, 40)
    expect(kernel.run(32, [numbers[0, 4...36], numbers.transpose.dup.transpose[1, 0...32]], [out[1, 8...40]])).to be(true)
    expect(out[1, 8...40].to_a).to eq((0...32).map { |at| (4 + at) + (40 + at) })
    expect([out[0, true].sum, out[1, 0...8].sum, out[2, true].sum]).to eq([0, 0, 0])
  end

  it "leaves the work to Numo where Numo does not say" do
    allow(described_class).to receive(:here?).and_return(false)
    sweep = Mordant::Pointwise::Sweep.new(1) { |plane| [plane * 2.0] }
    expect(Mordant::Pointwise::Kernel).not_to be_here
    expect(sweep.call(Numo::SFloat.new(20_000).seq).first[19_999]).to eq(39_998)
  end
end
