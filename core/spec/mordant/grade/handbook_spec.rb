# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::Handbook do
  let(:page) { File.read(File.expand_path("../../../../docs/recipes.md", __dir__)) }

  it "is the page that is in docs; bin/mordant steps --page > docs/recipes.md makes it anew" do
    expect(page).to eq(described_class.text)
  end

  it "has an example of each step that is a recipe and changes pictures" do
    examples = page.scan(/^    (\{"id".*\})$/).map { |(text)| JSON.parse(text) }
    steps, contributors = examples.partition { |one| Mordant::Steps.all.map(&:id).include?(one["kind"]) }
    expect(steps.map { |one| one["kind"] }).to eq(Mordant::Steps.all.map(&:id))
    expect(Mordant::Grade::Recipe.new("steps" => steps.each_with_index.map { |one, index| one.merge("id" => index.to_s) }).entries).to all(be_acts)
    contributors, refinements = contributors.partition { |one| Mordant::Matte.kinds.map(&:id).include?(one["kind"]) }
    expect([contributors, refinements].map { |list| list.map { |one| one["kind"] } }).to eq([Mordant::Matte.kinds.map(&:id), Mordant::Matte.refinements.map(&:id)])
    numbered = ->(list) { list.each_with_index.map { |one, index| one.merge("id" => index.to_s) } }
    made = Mordant::Matte::Composite.new({"contributors" => numbered[contributors], "refinements" => numbered[refinements]})
    expect([made.parts.size, made.refinements.map(&:acts?).uniq]).to eq([contributors.size, [true]])
  end

  it "shows a matte as it can be given" do
    matte = JSON.parse(page[/^    "matte": (\{.*\})$/, 1])
    expect(Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 1}, "matte" => matte}]).entries.first).to be_masked
    expect(Mordant::Grade::Recipe.from_json(described_class::FIRST).entries.size).to eq(1)
  end
end
