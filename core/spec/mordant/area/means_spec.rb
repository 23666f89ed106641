# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Area::Means do
  include Kernels

  # Blocks of a plane one by one, which goes on as it ends.
  def by_hand(rows, edge, left, top)
    height, width = rows.shape
    down, across = [[top, height], [left, width]].map { |before, size| ((before + size) / edge.to_f).ceil }
    Numo::DFloat.cast(Array.new(down) do |y|
      Array.new(across) do |x|
        (0...edge).sum { |k| (0...edge).sum { |j| rows[(y * edge + k - top).clamp(0, height - 1), (x * edge + j - left).clamp(0, width - 1)] } } / edge**2
      end
    end)
  end

  it "is the mean of all pixels of a block" do
    rows = Numo::SFloat.new(37, 90).rand
    [[4, 0, 0], [8, 3, 5], [16, 15, 9]].each do |edge, left, top|
      expect((described_class.call(rows, edge, left, top) - by_hand(rows, edge, left, top)).abs.max).to be < 1e-6
    end
  end

  it "has the bits that come of it without kernels, of any window, by any number of threads" do
    rows = odd_plane(433, 317)
    [[2, 0, 0], [4, 1, 3], [8, 0, 7], [8, 5, 0], [16, 9, 11], [64, 30, 50]].each do |edge, left, top|
      blocks, window = Mordant::Area::Blocks.new(edge), Mordant::Grade::Window.new(left: 64 + left, top: 128 + top, width: 317, height: 433)
      compiled = blocks.means(rows, window)
      expect(compiled.shape).to eq([(top + 433 + edge - 1) / edge, (left + 317 + edge - 1) / edge])
      Mordant::Pointwise::Together.count = 3
      expect(bits(blocks.means(rows, window))).to eq(bits(compiled))
      expect(bits(one_by_one { blocks.means(rows, window) })).to eq(bits(compiled)), "blocks of #{edge} from #{left}, #{top} on"
    end
  ensure
    Mordant::Pointwise::Together.count = 1
  end
end
