# frozen_string_literal: true

require "spec_helper"
require_relative "../../support/kernels"

RSpec.describe Mordant::Pointwise::Counted do
  include Kernels

  let(:counted) { described_class.new(2, 50) { |a, b| [[a * 10.0, b, a - b], [b * 3.0]] } }

  # As many as are said, with numbers beyond both ends and some that are none.
  def planes(size)
    a = Numo::SFloat.new(size).seq * 0.37 % 7 - 1
    [a, Numo::SFloat.new(size).seq * 0.11 % 3].tap { [[3, Float::NAN], [5, Float::INFINITY], [size - 1, -Float::INFINITY]].each { |at, odd| a[at] = odd } }
  end

  it "counts numbers and sums values by them, pixel after pixel, to the same bits as in Ruby, for any number of pixels" do
    [16, 17, 31, 32, 20_011].each do |size|
      a, b = planes(size)
      expect(counted.call(*planes(20_000))).to be_an(Array) # compiled
      made = counted.call(a, b)
      bin = ->(value) { (value.nan? || value < 0) ? 0 : [value, 49].min.floor }
      counts, sums, wide = Array.new(50, 0), Array.new(50, 0.0), Array.new(50, 0)
      (a * 10.0).to_a.zip(b.to_a) { |number, value| counts[bin[number]] += 1 and sums[bin[number]] += value }
      (b * 3.0).to_a.each { |number| wide[bin[number]] += 1 }
      expect([made[0].to_a, made[1].to_a, made[3].to_a]).to eq([counts, sums, wide])
      expect(made[2][1..48].to_a).to eq(one_by_one { counted.call(a, b) }[2][1..48].to_a)
    end
  end

  it "does the same without a compiler" do
    a, b = planes(500)
    with = counted.call(*planes(20_000)) && counted.call(a, b)
    expect(one_by_one { counted.call(a, b) }.map { |table| table[1..48].to_a }).to eq(with.map { |table| table[1..48].to_a })
  end

  it "refuses planes of other lengths and types" do
    expect { counted.call(Numo::SFloat.zeros(20), Numo::SFloat.zeros(19)) }.to raise_error(Mordant::ShapeError, /expected SFloat of 20/)
    expect { counted.call(Numo::SFloat.zeros(20), Numo::DFloat.zeros(20)) }.to raise_error(Mordant::ShapeError, /DFloat/)
  end
end
