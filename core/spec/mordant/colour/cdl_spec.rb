# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Colour::CDL do
  Reference.entries("asc-cdl").each do |entry|
    it "agrees for #{entry["id"]}" do
      cdl = described_class.new(**entry.slice("slope", "offset", "power", "saturation").transform_keys(&:to_sym))
      clamp = !entry["id"].include?("no-clamp")
      operations = entry["id"].end_with?("inverse") ? cdl.inverse_operations(clamp:) : cdl.operations(clamp:)
      found = Mordant::Pointwise::Chain.new(operations).exact(Numo::DFloat.cast(entry["inputs"]).transpose.dup)
      expect(found.transpose.to_a).to match_rows(entry["expected"], absolute: 1e-5, row: 1e-5)
    end
  end

  it "refuses what no correction can be" do
    [{slope: [1, 1]}, {slope: [-1, 1, 1]}, {power: [0, 1, 1]}, {saturation: -1}, {offset: [Float::NAN, 0, 0]}, {power: "1"}].each do |wrong|
      expect { described_class.new(**wrong) }.to raise_error(Mordant::ParameterError, /#{wrong.keys.first}/)
    end
    expect { described_class.new(saturation: 0).inverse_operations }.to raise_error(Mordant::ParameterError, /above 0/)
  end
end

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
