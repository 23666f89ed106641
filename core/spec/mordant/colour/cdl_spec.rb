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
