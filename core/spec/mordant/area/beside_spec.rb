# frozen_string_literal: true

require "spec_helper"
require_relative "../../support/kernels"

RSpec.describe Mordant::Area::Beside do
  include Kernels

  it "is worth it for large planes, and for small ones once it is there" do
    expect(described_class.worth?(120, 160)).to be(true)
    expect(described_class.worth?(4000, Mordant::Area::Wholes::LANES - 1)).to be(false)
  end

  it "makes what the boxes make step by step, bit for bit, whatever there is in the plane" do
    Numo::NArray.srand(4)
    [[120, 161, 0.4, 3], [900, 16, 1.3, 3], [1, 12_001, 0.9, 3], [2, 7000, 1.0, 2], [200, 83, 0.3, 1]].each do |height, width, sigma, passes|
      rows = odd_plane(height, width)
      boxes = Mordant::Area::Boxes.new(sigma, passes:)
      before = rows.dup
      expect(described_class).to receive(:call).and_call_original
      expect(bits(boxes.call(rows))).to eq(bits(one_by_one { boxes.call(rows) }))
      expect(bits(rows)).to eq(bits(before))
    end
  end

  it "gives each pixel's neighbours a share of it, and goes on at the edges as they end" do
    rows = Numo::SFloat.zeros(110, 130)
    rows[50, 60], rows[0, 0] = 9.0, 9.0
    made = described_class.call(rows, 0.25, 1) # 1/6, 4/6, 1/6 along each axis
    expect(made[48..52, 58..62].to_a.map { |row| row.map { |value| value.round(4) } }).to eq([[0] * 5, [0, 0.25, 1, 0.25, 0], [0, 1, 4, 1, 0], [0, 0.25, 1, 0.25, 0], [0] * 5])
    expect([made[0, 0], made[0, 1], made[1, 1]].map { |value| value.round(4) }).to eq([6.25, 1.25, 0.25])
  end
end
