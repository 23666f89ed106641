# frozen_string_literal: true

require "spec_helper"
require "stringio"

RSpec.describe Mordant::Rendition do
  def batch(*requests)
    output = StringIO.new
    Mordant::CommandLine::Convert.call(["--batch"], input: StringIO.new(requests.map { |request| JSON.generate(request) }.join("\n")), output:)
    output.string.lines.map { |line| JSON.parse(line) }
  end

  Reference.entries("hdr-mapping").each do |entry|
    it "meets #{entry["id"]}" do
      operation = {"eetf" => "eetf", "rec2020" => "ictcp-pq", "delta" => "delta-e-itp"}.fetch(entry["id"][/\A[a-z0-9]+/])
      found = batch({operation:, values: entry["inputs"], **entry.slice("black", "white", "least", "greatest")})[0]
      expect(found.keys).to eq(["values"])
      expect(found["values"]).to match_rows(entry["expected"], {absolute: entry["tolerance_note"][/1e-\d/].to_f})
    end
  end

  it "refuses, by name, what is no light, no row and no room" do
    eetf = {operation: "eetf", black: 0.0, white: 1000, least: 0.0, greatest: 100, values: [[0.5]]}
    requests = [eetf.merge(white: "bright"), eetf.merge(white: -1), eetf.merge(black: 2000), eetf.merge(greatest: 0), eetf.except(:least), eetf.merge(values: [[0.5, 0.5]]), eetf.merge(values: 3), {operation: "delta-e-itp", values: [[1, 2, 3]]}, {operation: "ictcp-pq", values: [[1, 2, nil]]}]
    expect(batch(*requests).map { |answer| answer.fetch("error")[/\A[a-z]+(\[\d\])?/] }).to eq(%w[white white white greatest least values[0] values values[0] values[0]])
    expect(batch({operation: "ictcp-pq", values: []})).to eq([{"values" => []}])
  end

  describe Mordant::Rendition::ToneCurve do
    let(:curve) { described_class.new(black: 0.0, white: 4000.0, least: 0.05, greatest: 300.0) }
    let(:codes) { Numo::DFloat.linspace(0.0, 0.9, 2001) }

    it "rises all the way, ends at the target's ends, but for what lifts blacks, and is smooth at its knee" do
      made = curve.call(codes)
      off = made[1..] - made[0...-1]
      expect(off.min).to be >= 0.0
      nits = Mordant::Colour::Transfer::PQ.decode(made) * 100
      expect([nits[0], nits[-1]]).to match([be_within(1e-3).of(0.05), be_within(1.5).of(300.0)])
      expect((off[1..] - off[0...-1]).abs.max).to be < 1e-5
    end

    it "gives back what it was given, itself, where the target has as much as the master or more" do
      same = described_class.new(black: 0.005, white: 1000.0, least: 0.0, greatest: 1000.0)
      expect(same).to be_neutral
      expect(same.call(codes)).to equal(codes)
    end
  end

  describe Mordant::Rendition::ICtCp do
    it "has the neutral axis where both colour differences are 0" do
      light = Numo::DFloat[[0.1, 20, 900, 5], [0.1, 3, 40, 5], [0.1, 250, 7000, 5]]
      made = described_class.of(light)
      expect(made[1..2, [0, 3]].abs.max).to be < 1e-9
      expect(described_class.difference(made, made).max).to eq(0.0)
    end
  end
end
