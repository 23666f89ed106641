# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Library, :folder do
  around do |example|
    before = described_class.root
    described_class.root = @folder
    example.run
  ensure
    described_class.root = before
  end

  def put(name, bytes)
    path = File.join(@folder.b, name.b)
    FileUtils.mkdir_p(File.dirname(path))
    File.binwrite(path, bytes)
  end

  let(:good) { "id: quay\nlabel: Quay log\nprimaries: BT.709\ncurve: {kind: gamma, gamma: 2.2}\n" }

  it "lists a faulty encoding with its fault, and everything else works" do
    faulty = {"todo.yml" => "", "note.yml" => "# later\n", "key.yml" => "? [a, b]\n: 1\n", "alias.yml" => "id: &x alias\nlabel: *x\n", "deep.yml" => "id: #{"[" * 50_000}",
              "dashes.yml" => "id: x\n#{"- " * 5000}1\n", "caf\xE9.yml" => good, "latin.yml" => "id: latin\nlabel: caf\xE9\n", "large.yml" => "# #{"x" * 70_000}\n", "text.yml" => "only words"}
    faulty.each { |name, text| put("encodings/#{name}", text) }
    put("encodings/quay.yml", good)
    Dir.mkdir(File.join(@folder, "encodings/folder.yml"))
    own = Mordant::Colour::OwnEncodings.new
    expect(own.all.map(&:id)).to eq(["quay"])
    expect(own.faults.size).to eq(faulty.size + 1)
    expect(own.faults.map(&:message)).to all(be_valid_encoding.and(satisfy { |text| text.length < 400 }))
    expect(own.faults.map(&:message)).to include(/todo.yml:1: expected a mapping of names to values, found "nothing"/, /alias.yml:2: expected a value, no reference/, /deep.yml:1: expected at most 12 levels/)
  end

  it "leaves a faulty set of bands out, and tells of it" do
    put("bands/a.json", JSON.generate("name" => "Mine", "quantity" => "luma", "bands" => [{"from" => 0, "to" => 1, "colour" => "#ffffff"}]))
    {"b.json" => "{", "c.json" => "[]", "d.json" => "\xE9", "e.json" => "[" * 90_000, "f.json" => "{}", "caf\xE9.json" => "x"}.each { |name, text| put("bands/#{name}", text) }
    expect(Mordant::Scopes::BandSets.all.select { |set| set["own"] }.map { |set| set["name"] }).to eq(["Mine"])
    expect(Mordant::Scopes::BandSets.faults.map(&:message)).to have_attributes(size: 6).and all(be_valid_encoding)
  end

  it "lists LUTs beside one whose name is no UTF-8, and takes no path that leads elsewhere" do
    cube = "LUT_1D_SIZE 2\n0 0 0\n1 1 1\n"
    put("luts/good.cube", cube)
    put("luts/caf\xE9.cube", cube)
    expect(Mordant::Lut::Library.list).to eq(["good.cube"])
    expect(Mordant::Lut::Library.faults.map(&:message)).to match([/caf\?.cube/])
    File.symlink("/tmp", File.join(@folder, "luts/out"))
    long = "#{"x" * 300}.cube"
    ["out/x.cube", "../x.cube", "good.cube/x.cube", long, "a/#{long}", "caf\xE9.cube"].each do |path|
      expect { Mordant::Lut::Library.store(path, cube) }.to raise_error(Mordant::ParameterError), path
    end
    expect(File).not_to exist("/tmp/x.cube")
  end
end
