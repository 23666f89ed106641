# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Steps::Detail do
  let(:width) { 240 }
  let(:height) { 120 }
  let(:space) { Mordant::Colour::WorkingSpace.default }

  def frame(rows) = Numo::NArray.vstack([Numo::SFloat.cast(rows).reshape(1, width * height)] * 3)

  def made(kind, picture, **parameters)
    step = kind.new(parameters)
    step.process(space).call(picture, Mordant::Grade::Moment.new(width:, height:) { nil })[0, true].reshape(height, width)
  end

  def waves(length) = Numo::NMath.sin(Numo::SFloat.new(1, width).seq * (2 * Math::PI / length)) * 0.02 + Numo::SFloat.zeros(height, 1) + 0.4

  def swing(rows) = rows[60, 60...180].then { |row| (row.max - row.min) / 2 }

  it "raises and takes away each of four sizes, and the others little" do
    lengths = [2.6, 6.5, 15.0, 36.0] # pixels of a wave, at a finest size of 0.005 of the height
    gains = lengths.map { |length| 4.times.map { |at| swing(made(described_class, frame(waves(length)), amounts: Array.new(4) { |one| (one == at) ? 1.0 : 0.0 }, size: 0.005, halo: 1.0)) / 0.02 } }
    gains.each_with_index { |row, at| expect(row.max).to eq(row[at]), [at, row].inspect }
    gains.each_with_index { |row, at| expect(row[at]).to be > 1.35 }
    gone = swing(made(described_class, frame(waves(2.6)), amounts: [-1.0, 0, 0, 0], size: 0.005)) / 0.02
    expect(gone).to be < 0.55
    expect(made(described_class, frame(waves(6.5)), amounts: [0, 0, 0, 0])).to eq(waves(6.5) + Numo::SFloat.zeros(height, width))
  end

  it "has no halo beyond what is allowed, as Sharpen has" do
    edge = Numo::SFloat.zeros(height, width) + 0.3
    edge[true, (width / 2)..] = 0.5
    soft = Numo::SFloat.cast(Mordant::Area::Gaussian.new(1.2).call(edge.reshape(width * height), Mordant::Grade::Window.whole(width, height)).reshape(height, width))
    [[described_class, {amounts: [1.5, 1.0, 0, 0], size: 0.01}], [Mordant::Steps::Sharpen, {luma: 2.0, size: 0.01}]].each do |kind, parameters|
      none, some, all = [0.0, 0.5, 1.0].map { |halo| made(kind, frame(soft), halo:, **parameters).then { |rows| rows.max - 0.5 } }
      expect(none).to be < 1e-5
      expect(all).to be > 0.015
      expect(some).to be_within(0.002).of(all / 2)
      steeper = made(kind, frame(soft), halo: 0.0, **parameters)
      middle = ->(rows) { rows[60, width / 2] - rows[60, width / 2 - 1] }
      expect(middle[steeper]).to be > middle[soft] * 1.15
    end
  end

  it "leaves noise below a threshold when it raises, and edges above it when it softens" do
    random = Random.new(3)
    noise = frame(Numo::SFloat.cast(Array.new(width * height) { random.rand * 0.006 - 0.003 + 0.4 }))
    plain, held = [0.0, 0.01].map { |threshold| made(Mordant::Steps::Sharpen, noise, luma: 3.0, size: 0.01, threshold:).stddev }
    expect([plain / noise[0, true].stddev, held / noise[0, true].stddev]).to match([be > 2.5, be_within(1e-3).of(1.0)])
    edge = Numo::SFloat.zeros(height, width) + 0.3
    edge[true, (width / 2)..] = 0.6
    blurred, kept = [0.0, 0.02].map { |threshold| made(Mordant::Steps::Soften, frame(edge), luma: 1.0, size: 0.02, threshold:) }
    expect(blurred[60, width / 2] - blurred[60, width / 2 - 1]).to be < 0.1
    expect(kept[60, width / 2] - kept[60, width / 2 - 1]).to be > 0.29
  end

  it "does to colour what it is told" do
    picture = Numo::NArray.vstack([waves(6.5), waves(6.5) * 0.0 + 0.4, waves(6.5) * -1.0 + 0.8].map { |rows| Numo::SFloat.cast(rows).reshape(1, width * height) })
    differences = ->(colour) { made(described_class, picture, amounts: [0, 1.0, 0, 0], size: 0.005, colour:, halo: 1.0)[60, 60...180].then { |row| row.max - row.min } }
    expect(differences[1.0]).to be > differences[0.0] * 1.2
  end
end
