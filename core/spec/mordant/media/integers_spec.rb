# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Media::Integers do
  # Codes of 10 bits worked out by hand: x * 1023, to the nearest; beyond the ends held, NaN 0.
  let(:values) { [0.0, 0.1, 0.5, 1.0, -0.3, 1.7, Float::NAN, Float::INFINITY, -Float::INFINITY, 0.2504] }
  let(:codes) { [0, 102, 512, 1023, 0, 1023, 0, 1023, 0, 256] }
  let(:frame) { Mordant::Frame.new(Numo::SFloat.cast([values, values.rotate, values.rotate(2)]), width: 5, height: 2, encoding: "srgb") }

  it "rounds, holds and takes NaN to 0, pixel by pixel and plane by plane" do
    expect(described_class.interleave(frame, 10).transpose.to_a).to eq([codes, codes.rotate, codes.rotate(2)])
    expect(described_class.planes(frame, 10).to_a).to eq([codes.rotate, codes.rotate(2), codes])
    expect(described_class.planes(frame, 8).to_a.last).to eq([0, 26, 128, 255, 0, 255, 0, 255, 0, 64])
  end

  it "adds noise over one code of the depth it is told, the same both ways" do
    flat = Mordant::Frame.new(Numo::SFloat.new(3, 4096).fill(0.5), width: 64, height: 64, encoding: "srgb")
    noisy = described_class.planes(flat, 16, dither: Mordant::Deliver::Dither.new(3), of: 10)
    off = Numo::Int32.cast(noisy) - 32_768
    # 32,767.5 and half a code of 10 bits, 32.03 of 16, either way, to the nearest
    expect([off.min, off.max]).to match([be_between(-33, -31), be_between(30, 32)])
    together = described_class.interleave(flat, 16, dither: Mordant::Deliver::Dither.new(3), of: 10)
    expect(together[true, [1, 2, 0]].transpose).to eq(noisy)
  end

  it "makes the same of large pictures, which a kernel rounds" do
    codes = Frames.codes(width: 401, height: 251)
    picture = Mordant::Frame.new(Numo::SFloat.cast(codes.rgb) / 50_000 - 0.1, width: 401, height: 251, encoding: "srgb")
    [Float::NAN, Float::INFINITY, -Float::INFINITY].each_with_index { |value, at| picture.rgb[at, 70_000 + at] = value }
    made = -> { [8, 10, 16].product([nil, Mordant::Deliver::Dither.new(5)]).flat_map { |bits, dither| [described_class.planes(picture, bits, dither:), described_class.interleave(picture, bits, dither:)] } }
    quickly = made.call
    allow(Mordant::Pointwise::Compiler).to receive(:here?).and_return(false)
    expect(quickly).to eq(made.call)
  end
end
