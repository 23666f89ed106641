# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Colour::Transfer::HalfCode do
  # IEEE 754-2008: 1.0 is 0x3c00, 2.0 is 0x4000, the smallest subnormal 2^-24 is 0x0001, the largest 65504 is 0x7bff.
  it "orders half floats by size, in codes from the middle" do
    values = Numo::SFloat[0.0, 1.0, 2.0, 2.0**-24, 65_504.0, -1.0, -(2.0**-24)]
    expect(described_class.codes(values).to_a).to eq([32_768, 32_768 + 0x3c00, 32_768 + 0x4000, 32_769, 32_768 + 0x7bff, 32_767 - 0x3c00, 32_766])
  end

  it "gives every half float back exactly, and holds what is not finite" do
    bits = Numo::UInt16.new(0x7c00).seq
    values = Mordant::Media::Half.decode(bits)
    [values, values * -1].each do |some|
      back = described_class.decode(Numo::DFloat.cast(described_class.codes(some)) / 65_535)
      expect((back - some).abs.max).to eq(0.0)
    end
    odd = described_class.codes(Numo::SFloat[Float::INFINITY, -Float::INFINITY, Float::NAN, 1e9])
    expect(described_class.table[odd].to_a).to eq([65_504.0, -65_504.0, 0.0, 65_504.0])
  end

  it "reads light of floats as the encoding says, without rendering it to a limit" do
    floats = Mordant::Colour.encoding("floats:acescg")
    expect(floats).to have_attributes(label: "ACEScg", linear?: false, scene?: true)
    light = Numo::SFloat[[0.18, 4.0, -0.01, 100.0]] * Numo::SFloat.ones(3, 1)
    codes = described_class.codes(light)
    found = Mordant::Pointwise::Chain.new(floats.decoding).from_codes(codes)
    wanted = Mordant::Pointwise::Chain.new(Mordant::Colour.encoding("acescg").decoding).call(light)
    expect(((found - wanted) / wanted).abs.max).to be < 6e-4 # half floats have 11 bits
    expect(Mordant::Colour::Encoding.known?("floats:acescg")).to be(false)
  end
end
