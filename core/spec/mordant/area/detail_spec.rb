# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Area::Detail do
  include Kernels

  let(:moment) { Mordant::Grade::Moment.new(width: 160, height: 90) }
  let(:weights) { [0.25, 0.7, 0.05] }

  def picture = Numo::SFloat.new(3, 160 * 90).rand

  # By the formula of the class, a pixel's differences from luma beside it.
  def by_hand(rgb, sizes, luma, colour)
    smooth = ->(plane) { [plane, *sizes.map { |size| size * 90 }].each_cons(2).reduce([plane]) { |made, (_, sigma)| made << Mordant::Area::Gaussian.new(sigma).call(Numo::SFloat.cast(made.last), moment.window) } }
    parts = ->(plane) { smooth[plane].each_cons(2).map { |finer, coarser| Numo::DFloat.cast(finer) - coarser } }
    y = (0..2).map { |channel| Numo::DFloat.cast(rgb[channel, true]) * weights[channel] }.inject(:+)
    light = parts[y].zip(luma).map { |part, gain| part * gain }.inject(:+)
    (0..2).map do |channel|
      apart = parts[Numo::DFloat.cast(rgb[channel, true]) - y].zip(colour).map { |part, gain| part * gain }.inject(:+)
      light + apart + rgb[channel, true]
    end
  end

  it "keeps of each size, of luma and of what is left of colour, what it is told" do
    rgb = picture
    [[[0.02], [0.5], [0.0]], [[0.01, 0.03, 0.1], [0.5, -1.0, 0.2], [0.3, 0.0, -0.6]]].each do |sizes, luma, colour|
      made = described_class.new(sizes:, luma:, colour:, weights:).call(rgb, moment)
      by_hand(rgb, sizes, luma, colour).each_with_index { |plane, channel| expect((plane - made[channel, true]).abs.max).to be < 2e-5 }
    end
  end

  it "has the bits that come of it without kernels, and leaves its input as it was" do
    rgb = Numo::NArray.vstack(Array.new(3) { odd_plane(90, 160).reshape(90 * 160) })
    before = bits(rgb)
    [{luma: [0.5], colour: [0.0], sizes: [0.02]}, {luma: [0.5, -0.4], colour: [0.2, 0.1], sizes: [0.01, 0.05], threshold: 0.05, halo: 0.3}].each do |how|
      detail = described_class.new(weights:, **how)
      expect(bits(detail.call(rgb, moment))).to eq(one_by_one { bits(detail.call(rgb, moment)) }), how.inspect
    end
    expect(bits(rgb)).to eq(before)
  end
end
