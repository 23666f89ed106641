# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Steps::Component do
  subject { described_class.new({gain: [1.05, 1.3, 1], gamma: [1.1, 0.8, 1], lift: [0.02, 0.01, 0]}) }

  it_behaves_like "a pointwise step"

  let(:space) { Mordant::Colour::WorkingSpace.default }
  let(:weights) { space.luminance_weights }

  def run(step, *pixels)
    Mordant::Pointwise::Chain.new(described_class.new(step).operations(space)).exact(Numo::DFloat.cast(pixels).transpose.dup).transpose.to_a
  end

  pixels = [[0.6, 0.4, 0.3], [0.3, 0.45, 0.5], [0.4, 0.4, 0.4], [0.2, 0.7, 0.25]]

  def hue(row) = Math.atan2((row[1] - row[2]) * Math.sqrt(3), 2 * row[0] - row[1] - row[2])

  it "gains saturation alone, value and hue staying" do
    run({gain: [1, 1.5, 1]}, *pixels).zip(pixels).each do |made, row|
      expect(made.max).to be_within(1e-12).of(row.max)
      expect(made.max - made.min).to be_within(1e-12).of((row.max - row.min) * 1.5)
      expect(hue(made)).to be_within(1e-9).of(hue(row)) unless row.uniq.one?
    end
  end

  it "shapes weak and strong colours apart by a gamma of saturation" do
    weak, strong = run({gamma: [1, 2.0, 1]}, [0.44, 0.4, 0.4], [0.9, 0.4, 0.4])
    expect((weak[0] - weak[1]) / 0.04).to be > 4.0
    expect((strong[0] - strong[1]) / 0.5).to be < 1.5
  end

  it "moves value alone, saturation and hue staying" do
    run({gain: [1.2, 1, 1]}, *pixels).zip(pixels).each do |made, row|
      expect(made.max - space.black).to be_within(1e-9).of((row.max - space.black) * 1.2)
      expect(made.max - made.min).to be_within(1e-12).of(row.max - row.min)
    end
  end

  it "works on each opponent component without touching the others" do
    parts = ->(row) { [row.zip(weights).sum { |x, w| x * w }, row[0] - row[2], row[1] - (row[0] + row[2]) / 2] }
    [[{gain: [1, 1.4, 1]}, 1], [{gain: [1, 1, 1.4]}, 2]].each do |step, index|
      run({model: "opponent", **step}, *pixels).zip(pixels).each do |made, row|
        wanted = parts[row].each_with_index.map { |x, i| (i == index) ? x * 1.4 : x }
        expect(parts[made]).to match(wanted.map { |x| be_within(1e-12).of(x) })
      end
    end
  end

  it "leaves grey grey in both models" do
    %w[value opponent].each { |model| expect(run({model:, gain: [1.1, 2, 2], gamma: [1, 2, 2], lift: [0, 0.2, 0]}, [0.4, 0.4, 0.4])[0].minmax.reduce(:-)).to be_within(1e-12).of(0.0) }
  end
end
