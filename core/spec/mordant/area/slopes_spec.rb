# frozen_string_literal: true

require "spec_helper"
require_relative "../../support/kernels"

RSpec.describe Mordant::Area::Slopes do
  include Kernels

  # A way from place to place, each a half farther than the one before.
  def way(count, blocks)
    places = Array.new(count) { |at| at / 2.0 }
    described_class::Way.new(*[0, 1].map { |one| Numo::Int64.cast(places.map { |at| (at.floor + one).clamp(0, blocks - 1) }) }, Numo::SFloat.cast(places.map { |at| at % 1 }))
  end

  it "lies between its neighbours as far as its share says, across and down, of small and of large pictures" do
    Numo::NArray.srand(2)
    [[5, 4], [9, 200], [200, 9], [131, 150]].each do |height, width|
      means = Numo::SFloat.new(height / 2 + 1, width / 2 + 1).rand
      made = described_class.draw(means, way(height, means.shape[0]), way(width, means.shape[1]))
      at = ->(y, x) { means[[y, means.shape[0] - 1].min, [x, means.shape[1] - 1].min] }
      [[0, 0], [1, 1], [height - 1, width - 1], [height / 2, 3], [3, width / 2 + 1]].each do |y, x|
        row = ->(down) { at[down, x / 2] + (at[down, x / 2 + 1] - at[down, x / 2]) * ((x % 2) / 2.0) }
        expect(made[y * width + x]).to be_within(1e-6).of(row[y / 2] + (row[y / 2 + 1] - row[y / 2]) * ((y % 2) / 2.0)), [height, width, y, x].inspect
      end
      expect(bits(one_by_one { described_class.draw(means, way(height, means.shape[0]), way(width, means.shape[1])) })).to eq(bits(made))
    end
  end

  it "makes NaN of what has one before or after it, and of nothing else" do
    means = Numo::SFloat.zeros(70, 80)
    means[40, 40] = Float::NAN
    made = described_class.draw(means, way(130, 70), way(150, 80)).reshape(130, 150)
    expect(made.isnan.where.to_a.map { |place| place.divmod(150) }.transpose.map(&:minmax)).to eq([[78, 81], [78, 81]])
  end
end
