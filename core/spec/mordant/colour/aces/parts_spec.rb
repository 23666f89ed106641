# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Colour::ACES::GamutCompression do
  Reference.entries("gamut-compress").each do |entry|
    it "agrees for #{entry["id"]}" do
      chain = Mordant::Pointwise::Chain.new([described_class.new(inverse: entry["id"].include?("uncompress"))])
      if entry["id"].start_with?("aces2065-1")
        to_ap1 = Mordant::Pointwise::Matrix.new(Mordant::Colour::ACES::AP0_TO_AP1)
        back = Mordant::Pointwise::Matrix.new(Mordant::Colour::Matrix3.inverse(to_ap1.rows))
        chain = Mordant::Pointwise::Chain.new([to_ap1, *chain.operations, back])
      end
      found = chain.exact(Numo::DFloat.cast(entry["inputs"]).transpose.dup).transpose.to_a
      expect(found).to match_rows(entry["expected"], absolute: 1e-5, row: 1e-4)
    end
  end

  it "leaves colours well inside AP1 alone, bit for bit" do
    rgb = Numo::SFloat[[0.18, 1.0, 0.0], [0.2, 0.8, 0.0], [0.1, 0.6, 0.0]]
    expect((Mordant::Pointwise::Chain.new([described_class.new]).call(rgb) - rgb).abs.max).to be < 1e-7
  end
end

RSpec.describe Mordant::Colour::ACES::Surround do
  it "agrees for the step from a dark to a dim surround" do
    entry = Reference.entries("output-transform-stages").find { |one| one["id"] == "aces_dark-to-dim" }
    found = Mordant::Pointwise::Chain.new([described_class.new]).exact(Numo::DFloat.cast(entry["inputs"]).transpose.dup)
    expect(found.transpose.to_a).to match_rows(entry["expected"], absolute: 1e-5, row: 1e-4)
  end
end
