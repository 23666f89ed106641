# frozen_string_literal: true

require "spec_helper"
require_relative "../../support/kernels"

RSpec.describe Mordant::Pointwise::Compiled do
  size = 12_345 # neither whole tiles nor whole lanes

  include Kernels

  def expect_same(&make)
    apart = one_by_one(&make)
    expect(Array.new(2) { bits(make.call) }).to all(eq(bits(apart)))
    apart
  end

  let(:codes) { Frames.codes(width: size, height: 1).rgb }
  let(:odd) { [Float::NAN, Float::INFINITY, -Float::INFINITY, 3.4e38, -3.4e38, 1e-40, -0.0, 0.0, -1.0e9] }

  # Log codes of all colours and beyond, with some that no picture should hold.
  let(:log) do
    values = Numo::SFloat.cast(codes) / 40_000 - 0.3
    odd.each_with_index { |value, at| 3.times { |channel| values[channel, 1000 + at * 4 + channel] = value } }
    values
  end

  views = Mordant::Colour::Rendering.all.product(%w[rec709-bt1886 rec2100-pq]).map { |rendering, encoding| Mordant::Grade::View.new(encoding:, rendering: rendering.id) }
  views << Mordant::Grade::View::MASTER
  views.each do |view|
    it "makes of log codes the #{[view.encoding, view.rendering].compact.join(", ")} that its operations make one by one" do
      chain = Mordant::Grade::Output.new(view:).chain
      expect(described_class.joined(chain.steps).size).to eq(1)
      made = expect_same { Mordant::Grade::Output.new(view:).chain.call(log) }
      expect(made[true, 1000].isnan.any?).to be(true)
      expect(made[true, 0...1000].isnan.any?).to be(false)
    end
  end

  it "makes of log codes a picture held to a gamut, of which a part is not recorded, as its operations do one by one" do
    view = Mordant::Grade::View.new(encoding: "rec2100-pq", rendering: "hdr-video-1000nit-15nit-p3lim-1.1", limit: "p3-d65")
    expect_same { Mordant::Grade::Output.new(view:).chain.call(log) }
  end

  Mordant::Colour::Encoding.all.select(&:pictures?).each do |encoding|
    it "makes of codes of #{encoding.id} what its operations make one by one" do
      expect_same { Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => []), source: encoding.id).chain.from_codes(codes) }
    end
  end

  recipes = {
    "a Balance of value" => [["balance", {"exposure" => 0.7, "saturation" => 1.3, "model" => "value", "gain" => [1.1, 1, 1, 0.9]}]],
    "a Balance of strong colours" => [["balance", {"saturation" => 1.3, "model" => "strong", "contrast" => 1.2}]],
    "zones" => [["zones", {"exposure" => [0.5, 0.2, 0, -0.3, -0.6], "saturation" => [1, 1.2, 1, 0.8, 0.7], "temperature" => [10, 0, 0, 0, -20]}]],
    "what is recorded and what is not in turns" => [["balance", {"exposure" => 0.7}], ["component", {"gain" => [1.1, 1, 1.2]}], ["zones", {"exposure" => [0.5, 0, 0, 0, 0]}]]
  }
  recipes.each do |name, steps|
    it "grades by #{name} as its operations do one by one" do
      document = {"steps" => steps.each_with_index.map { |(kind, parameters), at| {"id" => "s#{at}", "kind" => kind, "parameters" => parameters} }}
      expect_same { Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new(document), source: "logc3-ei800-wg3").chain.from_codes(codes) }
    end
  end

  it "mixes side by side, and in part, as one by one" do
    exposed = ->(by) { Mordant::Pointwise::Chain.new([Mordant::Pointwise::Curve.new(->(x) { x * by + 0.01 }, domain: :log), Mordant::Pointwise::Clamp.new(0.0, 2.0)]) }
    expect_same do
      braid, blend = Mordant::Pointwise::Braid.new([exposed.call(1.1), exposed.call(0.8)]), Mordant::Pointwise::Blend.new(exposed.call(1.3), 0.4)
      Mordant::Pointwise::Chain.new([braid, blend]).call(log)
    end
  end

  it "makes the same in several threads at once" do
    chain = Mordant::Grade::Output.new(view: Mordant::Grade::View::STANDARD).chain
    once = chain.call(log)
    expect(Array.new(4) { Thread.new { bits(chain.call(log)) } }.map(&:value)).to all(eq(bits(once)))
  end

  it "reads no memory as what it is not" do
    kernel = described_class.new([Mordant::Pointwise::Clamp.new(0.0, 1.0)])
    float, double = Numo::SFloat.zeros(size), Numo::DFloat.zeros(size)
    [[float, double, float], [float, float, Numo::SFloat.zeros(size - 1)]].each { |planes| expect { kernel.call(planes) }.to raise_error(Mordant::ShapeError, /expected three/) }
  end

  it "compiles nothing for what is small" do
    stub_const("Mordant::Pointwise::Kernel::LEAST", size + 1)
    allow(Mordant::Pointwise::Compiler).to receive(:kept?).and_return(false)
    expect(Mordant::Pointwise::Compiler).not_to receive(:function)
    expect_same { Mordant::Grade::Output.new(view: Mordant::Grade::View::STANDARD).chain.call(log) }
  end
end
