# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::Look do
  it "has some to start from, each of steps a recipe can hold" do
    expect(described_class.all.size).to be >= 12
    expect(described_class.all.count { |look| look.steps.any? { |step| step["kind"] == "emulsion" } }).to eq(6)
    expect(described_class.all.map(&:label)).to eq(described_class.all.map(&:label).uniq.sort)
    described_class.all.each { |look| expect(look.about).to end_with(".") }
  end

  it "has a bundle of all film steps, none of them on" do
    recipe = Mordant::Grade::Recipe.new(described_class.bundles.first.document)
    expect(recipe.entries.map { |entry| entry.step.class }).to match_array(Mordant::Steps.all.select { |kind| kind.circuit == :film })
    expect([recipe.neutral?, recipe.entries.map(&:bundle).uniq.size]).to eq([true, 1])
  end

  let(:codes) do
    Mordant::Media::Reader.new(File.expand_path("../../../../demo/media/heron/H014/H014_1B.mov", __dir__), rate: Rational(24), range: "legal").frame(10, width: 64, height: 36)
  end

  described_class.all.each do |look|
    it "changes a picture with #{look.label}, and leaves every code one a file can hold" do
      recipe = Mordant::Grade::Recipe.new(look.document)
      plain, made = [Mordant::Grade::Recipe.new("steps" => []), recipe].map { |one| Mordant::Grade::Plan.new(recipe: one, source: "logc3-ei800-wg3").run(codes) }
      expect((made.rgb - plain.rgb).abs.mean).to be_between(0.002, 0.2)
      expect(made.rgb.isfinite.all?).to be_truthy
      expect(recipe.beyond_luts.map { |entry| entry.step.class.id }.uniq - %w[grain halation bloom]).to be_empty
    end

    it "keeps greys that are not told otherwise near grey with #{look.label}" do
      recipe = Mordant::Grade::Recipe.new(look.document)
      grey = Numo::DFloat.new(1, 30).seq.tile(3, 1) / 50 + 0.2
      out = Mordant::Grade::Plan.new(recipe: recipe.within_luts, source: "acescct").chain.exact(grey)
      expect((out.max(axis: 0) - out.min(axis: 0)).max).to be < 0.06
    end
  end
end
