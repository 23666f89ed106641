# frozen_string_literal: true

require "spec_helper"
require_relative "../../support/kernels"

RSpec.describe Mordant::Area::Tapped do
  include Kernels

  it "is worth it for large planes, and for small ones once it is there" do
    expect(described_class.worth?(120, 160)).to be(true)
    expect(described_class.worth?(4000, Mordant::Area::Wholes::LANES - 1)).to be(false)
  end

  it "makes what Numo makes tap by tap, bit for bit, whatever there is in the plane and however far taps reach" do
    Numo::NArray.srand(6)
    [[120, 161, [0.6, 0.2], 1], [900, 16, [0.4, 0.2, 0.1], 1], [5, 3000, [0.5, 0.15, 0.1], 4], [1, 12_001, [0.8, 0.1], 7], [90, 160, [0.375, 0.25, 0.0625], 8]].each do |height, width, taps, apart|
      rows, window = odd_plane(height, width), Mordant::Grade::Window.whole(width, height)
      plane, blur = rows.dup.reshape!(rows.size), Mordant::Area::Taps.new(taps, apart:)
      expect(described_class).to receive(:call).and_call_original
      expect(bits(blur.call(plane, window))).to eq(bits(one_by_one { blur.call(plane, window) })), [height, width].inspect
      expect(bits(plane)).to eq(bits(rows))
    end
  end

  it "gives neighbours that lie so far apart their share, along both axes, and goes on at the edges as they end" do
    rows = Numo::SFloat.zeros(110, 130)
    rows[50, 60], rows[0, 0] = 16.0, 16.0
    made = described_class.call(rows, [0.5, 0.25], 2)
    expect(made[48..52, 58..62].to_a).to eq([[1, 0, 2, 0, 1], [0] * 5, [2, 0, 4, 0, 2], [0] * 5, [1, 0, 2, 0, 1]])
    expect([[0, 0], [0, 1], [1, 1], [2, 0], [2, 2], [3, 0]].map { |at| made[*at] }).to eq([9, 3, 1, 3, 1, 0])
  end
end
