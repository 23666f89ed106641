# frozen_string_literal: true

require "spec_helper"
require_relative "../../support/kernels"

RSpec.describe Mordant::Area::Running do
  include Kernels

  it "is worth it for large planes, and for small ones once it is there" do
    expect(described_class.worth?(120, 160)).to be(true)
    expect(described_class.worth?(4000, Mordant::Area::Wholes::LANES - 1)).to be(false)
  end

  it "makes what the boxes make step by step, bit for bit, whatever there is in the plane" do
    Numo::NArray.srand(4)
    [[120, 161, 0.4, 3], [120, 161, 1.5, 3], [97, 200, 1.7, 3], [150, 100, 6.0, 1], [40, 400, 30.0, 3]].each do |height, width, sigma, passes|
      rows = odd_plane(height, width)
      boxes = Mordant::Area::Boxes.new(sigma, passes:)
      before = rows.dup
      expect(bits(boxes.call(rows))).to eq(bits(one_by_one { boxes.call(rows) }))
      expect(bits(rows)).to eq(bits(before))
    end
  end

  it "is a mean of three by three, where the box is three wide, that goes on at the edges as they end" do
    rows = Numo::SFloat.zeros(110, 130)
    rows[50, 60], rows[0, 0] = 9.0, 9.0
    made = Mordant::Area::Boxes.new(Math.sqrt(2.0 / 3), passes: 1).call(rows)
    expect(made[48..52, 58..62].to_a.map { |row| row.map { |value| value.round(4) } }).to eq([[0] * 5, *[[0, 1, 1, 1, 0]] * 3, [0] * 5])
    expect([made[0, 0], made[0, 1], made[1, 1]].map { |value| value.round(4) }).to eq([4, 2, 1])
  end
end
