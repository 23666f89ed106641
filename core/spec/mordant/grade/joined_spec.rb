# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::Joined do
  def recipe(*ids, braid: nil) = Mordant::Grade::Recipe.new("steps" => ids.flatten.map { |id| {"id" => id, "kind" => "balance", "braid" => braid, "parameters" => {"exposure" => 0.5}}.compact })

  let(:joined) { recipe("a", "b").followed_by(recipe("c", "d", braid: "x")) }

  it "runs one recipe after another, as one" do
    frame = Frames.codes.frame(encoding: "acescct")
    apply = ->(one) { Mordant::Grade::Plan.new(recipe: one, source: "acescct").apply(frame).rgb }
    together = apply.call(recipe("a").followed_by(recipe("b")))
    expect((together - apply.call(recipe("a", "b"))).abs.max).to be < 1e-6
  end

  it "keeps steps side by side within their own recipe" do
    twice = recipe("a", braid: "x").followed_by(recipe("b", braid: "x"))
    expect(twice.strands.map(&:size)).to eq([1, 1])
    expect(joined.strands.map { |strand| strand.map(&:id) }).to eq([%w[a], %w[b], %w[c d]])
  end

  it "is cut before a step and picked from like any recipe" do
    expect(joined.before("c").entries.map(&:id)).to eq(%w[a b])
    expect(joined.only(%w[a d]).entries.map(&:id)).to eq(%w[a d])
    expect { joined.only(%w[z]) }.to raise_error(Mordant::ParameterError, /found "z"/)
  end

  it "holds more than one recipe may, and is the first one itself where nothing follows" do
    many = recipe(Array.new(64, &:to_s))
    expect(many.followed_by(recipe("more")).only(%w[0 more]).entries.size).to eq(2)
    expect(many.followed_by(recipe)).to be(many)
  end
end
