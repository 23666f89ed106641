# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Area::Greatest do
  # By its definition, place by place.
  def plainly(rows, radius)
    slant = [(radius * (1 - Math.sqrt(0.5))).round, (radius - 1) / 2].min.clamp(0, nil)
    {[0, 1] => radius - 2 * slant, [1, 0] => radius - 2 * slant, [1, 1] => slant, [1, -1] => slant}.reduce(framed(rows, radius)) do |held, ((down, across), far)|
      held.each_index.map { |y| held[y].each_index.map { |x| (-far..far).filter_map { |off| place(held, y + down * off, x + across * off) }.max } }
    end[radius...(radius + rows.size)].map { |row| row[radius...-radius] }
  end

  def place(rows, y, x) = (rows[y][x] if y.between?(0, rows.size - 1) && x.between?(0, rows[0].size - 1))

  def framed(rows, pad) = Array.new(rows.size + 2 * pad) { |y| Array.new(rows[0].size + 2 * pad) { |x| ((y >= pad && x >= pad) && rows.dig(y - pad, x - pad)) || -Float::INFINITY } }

  it "is the greatest along both axes and both diagonals, at every edge, however the picture is cut up" do
    Numo::NArray.srand(9)
    rows = Numo::SFloat.new(23, 31).rand - 0.5
    stub_const("Mordant::Pointwise::TILE", 40) # some rows at once
    [1, 2, 3, 5, 8].each { |radius| expect(described_class.new(radius).call(rows).to_a).to eq(plainly(rows.to_a, radius)), "radius #{radius}" }
    expect(described_class.new(0).call(rows)).to eq(rows)
  end

  it "takes NaN for nothing, in pictures that are worth a kernel too" do
    [[23, 31], [120, 110]].each do |height, width|
      rows = Numo::SFloat.new(height, width).rand
      rows[[0, 70, 71, 400]] = Float::NAN
      numbers = rows.dup.tap { |held| held[held.isnan] = -Float::INFINITY }
      [1, 4].each { |radius| expect(described_class.new(radius).call(rows).to_a).to eq(plainly(numbers.to_a, radius)), [height, radius].inspect }
    end
  end
end
