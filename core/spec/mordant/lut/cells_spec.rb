# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Lut::Cells, :folder do
  let(:cells) { described_class.new([[5_000, 9_000, 300], [41_000, 60_000, 12_000]]) }
  let(:random) { Random.new(11) }

  def codes(rows) = Numo::UInt16.cast(rows.transpose)

  it "finds the cell that a colour lies in, wherever in it that is" do
    inner = cells.inner(Numo::Int32.new(described_class::COUNT).seq[(0..).step(997)].dup)
    [[0.02, 0.5, 0.9], [0.97, 0.03, 0.5], [0.5, 0.5, 0.5]].each do |share|
      inside = Numo::UInt16.cast((cells.colours(inner, share) * 65_535).round)
      expect(cells.of(inside).eq(inner).count_true).to be > inner.size * 0.97 # blue's cells are 70 codes wide, of which a rounding takes one
    end
  end

  it "puts what lies outside of its box into cells that are no inner ones" do
    outside = codes([[4_999, 30_000, 5_000], [30_000, 60_001, 5_000], [65_535, 65_535, 65_535], [0, 0, 0], [20_000, 20_000, 20_000]])
    expect(cells.inner(cells.of(outside)).size).to eq(0)
    expect(cells.inner(cells.of(codes([[20_000, 20_000, 6_000]]))).size).to eq(1)
  end

  it "reads what is linear as it is, and counts each corner once" do
    cell = cells.of(codes([[20_000, 20_000, 6_000]]))
    expect(cells.nodes(cell).size).to eq(8)
    expect(cells.nodes(Numo::NArray.hstack([cell, cell + 1])).size).to eq(12)
    plane = ->(colours) { colours[0, true] * 3 - colours[1, true] * 2 + colours[2, true] * 0.5 }
    20.times do
      share = Array.new(3) { random.rand }
      weights = described_class.weights(share)
      expect(weights.sum(&:last)).to be_within(1e-9).of(1)
      read = weights.sum { |step, weight| plane.call(cells.colours(cell + step))[0] * weight }
      expect(read).to be_within(1e-5).of(plane.call(cells.colours(cell, share))[0])
    end
  end

  it "is read by ffmpeg as it is here, all of it" do
    edge = described_class::SIZE
    number = Numo::Int64.new(described_class::COUNT).seq
    nodes = [number % edge, number / edge % edge, number / edge**2].map { |along| Numo::UInt16.cast((Numo::DFloat.cast(along) * (65_535.0 / (edge - 1))).round) }
    path = File.join(@folder, "same.raw")
    Mordant::Media::Hald.write(path, nodes)
    wanted = Array.new(3) { Array.new(64 * 36) { random.rand(65_536) } } # green, blue, red
    source = File.join(@folder, "colours.raw")
    File.binwrite(source, wanted.flatten.pack("S<*"))
    made = Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-f", "rawvideo", "-pix_fmt", "gbrp16le", "-s", "64x36", "-i", source, "-vf", Mordant::Media::Hald.filters(path, level: described_class::LEVEL), "-f", "rawvideo", "-pix_fmt", "gbrp16le", "pipe:1"], path: source)
    expect(made.unpack("S<*").zip(wanted.flatten).map { |one, other| (one - other).abs }.max).to be <= 2
  end
end
