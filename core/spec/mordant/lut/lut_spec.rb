# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Lut do
  def run(operations, rows, type = Numo::DFloat)
    Mordant::Pointwise::Chain.new(operations).exact(type.cast(rows).transpose.dup).transpose.to_a
  end

  Reference.entries("luts").each do |entry|
    it "agrees for #{entry["id"]}" do
      data = Numo::DFloat.cast(entry["lut"]["data"])
      operations =
        if entry["id"].start_with?("lut1d") then [Mordant::Lut::Curve1d.new(data).curve]
        else
          [Mordant::Lut::Lattice.new(data, size: entry["lut"]["size"], interpolation: entry["id"].split("_").last.to_sym)]
        end
      expect(run(operations, entry["inputs"])).to match_rows(entry["expected"], absolute: 2e-6, row: 5e-6) # six digits are printed
    end
  end

  describe Mordant::Lut::Lattice do
    let(:identity) { described_class.new(described_class.nodes(9).transpose.dup, size: 9) }

    it "gives back what it was made of, by both methods and in both precisions" do
      Numo::NArray.srand(5)
      rows = Numo::DFloat.new(500, 3).rand.to_a + [[0, 0, 0], [1, 1, 1], [0.5, 0.5, 0.5], [1, 0, 0.25]]
      expect(run([identity], rows)).to match_rows(rows, absolute: 1e-12)
      expect(run([identity.interpolated(:trilinear)], rows)).to match_rows(rows, absolute: 1e-12)
      expect(run([identity], rows, Numo::SFloat)).to match_rows(rows, absolute: 1e-6)
    end

    it "holds values to its domain and survives NaN" do
      found = run([identity], [[-1, 2, 0.5], [Float::INFINITY, -Float::INFINITY, 0.5], [Float::NAN, 0.5, 0.5]])
      expect(found.first(2)).to match_rows([[0, 1, 0.5], [1, 0, 0.5]], absolute: 1e-12)
      expect(found.last).to all(be_nan)
    end

    it "refuses data of another size" do
      expect { described_class.new(Numo::DFloat.zeros(26, 3), size: 3) }.to raise_error(Mordant::ShapeError, /\[27, 3\]/)
    end
  end

  describe Mordant::Lut::Cube, :folder do
    def reading(text)
      path = File.join(@folder, "try.cube")
      File.write(path, text)
      described_class.read(path)
    end

    let(:lattice) { Mordant::Lut::Lattice.new(Mordant::Lut::Lattice.nodes(3).transpose.dup**2, size: 3) }
    let(:shaper) { Mordant::Lut::Curve1d.new(Numo::DFloat[[0, 0, 0], [0.4, 0.5, 0.6], [1, 1, 1]], domain: [[-0.5] * 3, [1.5] * 3]) }

    it "reads what it writes, curves and lattice together" do
      [{lattice:}, {shaper:}, {shaper:, lattice:, title: "a look"}].each do |parts|
        table = Mordant::Lut::Table.new(**parts)
        read = reading(described_class.write(table))
        rows = Numo::DFloat.new(40, 3).rand.to_a
        expect(run(read.operations, rows)).to match_rows(run(table.operations, rows), absolute: 1e-8)
        expect(read.title).to eq(table.title)
      end
    end

    it "knows comments, domains and blank lines" do
      table = reading("# made up\nTITLE \"two\"\n\nLUT_1D_SIZE 2\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 2 2 4\n0 0 0\n1 1 1\n")
      expect(run(table.operations, [[1, 2, 1]])).to match_rows([[0.5, 1.0, 0.25]], absolute: 1e-12)
    end

    {
      "a row of words" => ["LUT_1D_SIZE 2\n0 0 0\n0 1 x\n", 3, "three finite numbers"],
      "a missing row" => ["LUT_3D_SIZE 2\n" + "0 0 0\n" * 7, 8, "8 rows of three numbers"],
      "a row too many" => ["LUT_1D_SIZE 2\n" + "0 0 0\n" * 3, 4, "no more than 2 rows"],
      "NaN" => ["LUT_1D_SIZE 2\n0 0 0\nnan 0 0\n", 3, "three finite numbers"],
      "an infinity" => ["LUT_1D_SIZE 2\n0 0 0\n1e999 0 0\n", 3, "three finite numbers"],
      "a size beyond all" => ["LUT_3D_SIZE 5000\n", 1, "a size in"],
      "no size" => ["TITLE \"x\"\n", 1, "LUT_1D_SIZE or LUT_3D_SIZE"],
      "a strange word" => ["LUT_9D_SIZE 2\n", 1, "a keyword of this format"],
      "a range upside down" => ["LUT_1D_SIZE 2\nLUT_1D_INPUT_RANGE 1 0\n", 2, "a range that rises"]
    }.each do |name, (text, line, expected)|
      it "refuses #{name}, with its line" do
        expect { reading(text) }.to raise_error(Mordant::FormatError) { |error| expect([error.line, error.expected]).to match([line, /#{expected}/]) }
      end
    end
  end
end

RSpec.describe "LUT and XML files that ask for too much", :folder do
  def refused(name, bytes, with)
    path = File.join(@folder, name)
    File.binwrite(path, bytes)
    started = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    expect { yield path }.to raise_error(Mordant::FormatError, with)
    Process.clock_gettime(Process::CLOCK_MONOTONIC) - started
  end

  it "are refused soon, with a short message" do
    cube = ->(path) { Mordant::Lut::Cube.read(path) }
    cdl = ->(path) { Mordant::Colour::CDLDocument.read(path) }
    refused("newlines.cube", "\n" * 3_100_000, /at most 3000000 lines/, &cube)
    refused("line.cube", "LUT_3D_SIZE 2\n#{"1 " * 3_000_000}", /lines of 4096 bytes, found "1 1.*" and more/, &cube)
    refused("deep.ccc", "<a>" * 100_000, /at most 64 elements within each other/, &cdl)
    refused("wide.ccc", "<!DOCTYPE a>".encode("UTF-16"), /XML in UTF-8/, &cdl)
    refused("named.ccc", "<?xml version='1.0' encoding='UTF-7'?><a/>", /XML in UTF-8/, &cdl)
    refused("empty.ccc", "", /an XML element|well-formed/, &cdl)
  end
end
