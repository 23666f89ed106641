# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Colour::Difference do
  Reference.entries("ciede2000").each do |entry|
    it "agrees for #{entry["id"]}" do
      bound = entry["id"].include?("published") ? 1e-4 : 1e-5
      last_digit = ->(value) { 0.51 * 10**(Math.log10(value).floor - 5) } # six are printed
      entry["inputs"].zip(entry["expected"]) do |row, (expected)|
        expect(described_class.ciede2000(row.first(3), row.last(3))).to be_within([bound, last_digit[expected]].max).of(expected)
      end
    end
  end

  it "puts display white at L* 100 and black at 0" do
    lab = described_class.lab(Numo::DFloat[[0.95047, 0.0], [1.0, 0.0], [1.08883, 0.0]])
    expect(lab.transpose.to_a).to match_rows([[100, 0, 0], [0, 0, 0]], absolute: 1e-9)
  end
end
