# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Colour::Operation do
  def run(entry, id, **options)
    described_class.chain(id, **options).exact(Numo::DFloat.cast(entry["inputs"]).transpose.dup).transpose.to_a
  end

  Reference.entries("output-transform-stages").each do |entry|
    it "agrees for #{entry["id"]}" do
      id = entry["id"].delete_prefix("aces_").delete_suffix("_inverse")
      inverse = entry["direction"] == "inverse"
      found, wanted = run(entry, id, inverse:), entry["expected"]
      keep = wanted.each_index.reject { |index| inverse && (entry["inputs"][index] + wanted[index]).any?(&:negative?) } # as its note asks
      expect(keep).not_to be_empty
      expect(found.values_at(*keep)).to match_rows(wanted.values_at(*keep), absolute: 1e-5, row: 1e-4)
    end
  end

  Reference.entries("gamut-compress").each do |entry|
    it "agrees for #{entry["id"]}" do
      found = run(entry, "gamut-compress-1.3", from: entry["id"].split("_").first, inverse: entry["direction"] == "inverse")
      expect(found).to match_rows(entry["expected"], absolute: 1e-5, row: 1e-4)
    end
  end

  Reference.entries("aces-encodings").select { |entry| entry["id"].include?("blue-light") }.each do |entry|
    it "agrees for #{entry["id"]}" do
      expect(run(entry, "blue-light-artifact-fix", inverse: entry["direction"] == "inverse")).to match_rows(entry["expected"], absolute: 1e-5, row: 1e-4)
    end
  end

  it "comes back to where it began" do
    rgb = Numo::DFloat.new(3, 300).rand * 2.0 + 0.02
    %w[glow dark-to-dim].each do |id|
      there = described_class.chain(id).exact(rgb)
      expect((described_class.chain(id, inverse: true).exact(there) - rgb).abs.max).to be < 2e-4, id
    end
  end

  it "names what there is" do
    expect { described_class.chain("bloom") }.to raise_error(Mordant::UnknownIdError, /no operation "bloom"; there are blue-light-artifact-fix, dark-to-dim/)
  end
end
