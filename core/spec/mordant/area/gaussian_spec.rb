# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Area::Gaussian do
  def blurred(plane, sigma) = described_class.new(sigma).call(plane.reshape(plane.size), Mordant::Grade::Window.whole(*plane.shape.reverse)).reshape(*plane.shape)

  # The density of the normal distribution, of points in two dimensions.
  def density(distance, sigma) = Math.exp(-distance**2 / (2 * sigma**2)) / (2 * Math::PI * sigma**2)

  [0.3, 0.8, 1.5, 3.0, 6.0, 9.0, 20.0, 45.0].each do |sigma|
    it "spreads a point as far as a standard deviation of #{sigma} says" do
      edge = (sigma * 10).ceil.clamp(21, 401) | 1
      point = Numo::SFloat.zeros(edge, edge)
      point[edge / 2, edge / 2] = 1000.0
      out = Numo::DFloat.cast(blurred(point, sigma)) / 1000
      place = Numo::DFloat.new(edge).seq - edge / 2
      expect(out.sum).to be_within(1e-3).of(1.0)
      expect(Math.sqrt((out.sum(axis: 0) * place**2).sum)).to be_within(0.02 * sigma).of(sigma)
      next if sigma < 1.5

      [0, 1, 2].each { |times| expect(out[edge / 2, edge / 2 + (times * sigma).round]).to be_within(0.13 * density(0, sigma)).of(density((times * sigma).round, sigma)), times.to_s }
    end
  end

  it "leaves what is flat as it is, edges included" do
    [1.0, 12.0, 60.0].each { |sigma| expect((blurred(Numo::SFloat.new(37, 53).fill(0.4), sigma) - 0.4).abs.max).to be < 1e-6 }
  end

  it "does not depend on where a window begins, to the bit" do
    Numo::NArray.srand(3)
    plane = Numo::SFloat.new(200, 300).rand
    whole = Mordant::Grade::Window.whole(300, 200)
    [2.0, 9.0, 17.0].each do |sigma|
      made = described_class.new(sigma)
      full = made.call(plane.reshape(plane.size), whole).reshape(1, plane.size)
      [[101, 77, 31, 20], [3, 0, 11, 9], [280, 190, 20, 10]].each do |left, top, width, height|
        window = Mordant::Grade::Window.new(left:, top:, width:, height:)
        more = window.grown(made.margin, whole)
        part = made.call(more.cut(plane.reshape(1, plane.size), whole).reshape(more.size), more).reshape(1, more.size)
        expect(window.cut(part, more)).to eq(window.cut(full, whole)), [sigma, left].inspect
      end
    end
  end
end
