# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe Mordant::Numerals do
  it "reads what JSON can write, as Ruby reads it" do
    words = %w[0 1 -1 0.5 -0.25 1e-7 1.5E+3 123456789.125 0.1 0.30000000000000004]
    expect(described_class.read(" #{words.join("\t")}\r\n 7 \n").to_a).to eq(words.map { |word| Float(word) } + [7.0])
    expect(described_class.read(" \n").to_a).to eq([])
  end

  it "leaves what is written otherwise, and what is no number, to who reads one by one" do
    ["1 .5", "1 +5", "1. 2", "007", "1,2", "nan", "1e999", "1-2", "[1]", "null", "1 \u0661", "--1"].each { |text| expect(described_class.read(text)).to be_nil, text }
  end
end
