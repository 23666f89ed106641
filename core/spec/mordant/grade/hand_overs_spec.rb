# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::HandOvers do
  television = {name: "Television", view: Mordant::Grade::View::STANDARD}

  def findings(space: "acescct", targets: nil, canvas: "2.4", clips: [], recipes: {})
    targets ||= [{name: "Television", view: Mordant::Grade::View::STANDARD}]
    described_class.new(space: Mordant::Colour::WorkingSpace.fetch(space), targets: targets.map { |one| described_class::Target.new(**one) }, canvas:,
      clips: clips.map { |one| described_class::Clip.new(name: "a.mov", **one) }, recipes:).findings.map { |one| [one.level, one.words] }
  end

  def view(...) = Mordant::Grade::View.new(...)

  it "finds nothing where everything agrees" do
    expect(findings(clips: [{encoding: "logc3-ei800-wg3", range: "legal", declared_range: "legal", transfer: "bt709"}])).to be_empty
  end

  {
    "a clip nobody assigned" => [{clips: [{encoding: nil}]}, "fault", /no encoding is assigned/],
    "a finished picture rendered again" => [{clips: [{encoding: "rec709-bt1886"}]}, "fault", /renders it a second time/],
    "a tag that contradicts the assignment" => [{clips: [{encoding: "logc3-ei800-wg3", transfer: "smpte2084"}]}, "fault", /tagged smpte2084, but is read as LogC3/],
    "a range read otherwise than declared" => [{clips: [{encoding: "logc3-ei800-wg3", range: "full", declared_range: "legal"}]}, "notice", /legal range, they are read as full/],
    "a scene in a display-referred project" => [{space: "display", targets: [{name: "T", view: Mordant::Grade::View.new(encoding: "rec709-bt1886")}], clips: [{encoding: "logc3-ei800-wg3"}]}, "notice", /on its way into this display-referred/],
    "a peak the target cannot hold" => [{targets: [{name: "T", view: Mordant::Grade::View.new(encoding: "rec709-bt1886", rendering: "hdr-video-1000nit-15nit-p3lim-1.1")}]}, "fault", /1000 cd.m2, which BT.709/],
    "a rendering that is left out" => [{space: "display"}, "notice", /rendering is left out/],
    "a target without rendering" => [{targets: [{name: "T", view: Mordant::Grade::View.new(encoding: "rec709-bt1886")}]}, "notice", /has no rendering/],
    "a canvas other than the target" => [{canvas: "2.2"}, "notice", /taken to be BT.709 · gamma 2.2/],
    "light a canvas cannot show" => [{targets: [{name: "T", view: Mordant::Grade::View.new(encoding: "rec2100-pq", rendering: "hdr-video-4000nit-15nit-p3lim-1.1")}]}, "notice", /above 100 cd.m2 is cut off there/],
    "targets that must not be exchanged" => [{targets: [television, {name: "Web", view: Mordant::Grade::View.new(encoding: "srgb", rendering: "sdr-video-1.0")}]}, "notice", /have the same primaries and other curves/]
  }.each do |name, (chain, level, words)|
    it "finds #{name}" do
      expect(findings(**chain)).to include([level, words])
    end
  end

  it "finds LUTs that are gone, and those that render before the view does" do
    recipe = ->(**parameters) { {"1A" => Mordant::Grade::Recipe.new("steps" => [{"id" => "l", "kind" => "lut", "parameters" => parameters.transform_keys(&:to_s)}])} }
    expect(findings(recipes: recipe[lut: "gone.cube"])).to include(["fault", /gone.cube is not in the LUT library/])
    allow(Mordant::Lut::Library).to receive(:stamp).and_return(["film.cube", 1, 1])
    expect(findings(recipes: recipe[lut: "film.cube", expects: "logfilm-wgrgb", returns: "rec709-bt1886"])).to include(["fault", /Use the LUT as a target/])
    expect(findings(recipes: recipe[lut: "film.cube", expects: "logfilm-wgrgb", returns: "logfilm-wgrgb"])).to be_empty
  end
end

RSpec.describe Mordant::Media::Assignment do
  def call(rules, **facts) = described_class.new(rules).call(facts.transform_keys(&:to_s))

  rule = ->(field, pattern, encoding) { {"field" => field, "pattern" => pattern, "encoding" => encoding} }

  it "takes the first rule that fits, and says which" do
    rules = [rule["camera", "A*", "logc3-ei800-wg3"], rule["folder", "*/dunlin", "log3g10-wgrgb"], rule["declares", "bt709/*", "rec709-bt1886"]]
    expect(call(rules, camera: "a7", folder: "day/dunlin")).to eq(["logc3-ei800-wg3", "rule 1: camera a7"])
    expect(call(rules, camera: "B", folder: "day/dunlin")).to eq(["log3g10-wgrgb", "rule 2: folder day/dunlin"])
    expect(call(rules, primaries: "bt709", transfer: "bt709")).to eq(["rec709-bt1886", "rule 3: declares bt709/bt709"])
    expect(call([rule["codec", "{prores,dnxhd}", "srgb"]], codec: "dnxhd").first).to eq("srgb")
  end

  it "falls back on what the file declares without doubt" do
    expect(call([], encoding: "v-log-v-gamut", transfer: "smpte2084")).to eq(["v-log-v-gamut", "the file declares it"])
    expect(call([], transfer: "arib-std-b67")).to eq(["rec2100-hlg-1000nit", "the file is tagged arib-std-b67"])
    expect(call([], transfer: "bt709")).to be_nil
  end

  it "refuses rules it does not understand, by their place" do
    {"rules[0].field" => rule["colour", "x", "srgb"], "rules[0].pattern" => rule["camera", " ", "srgb"], "rules[0].encoding" => rule["camera", "x", "linear"], "rules[0]" => 5}.each do |path, one|
      expect { described_class.new([one]) }.to raise_error(Mordant::ParameterError) { |error| expect(error.path).to eq(path) }
    end
    expect { described_class.new("no") }.to raise_error(Mordant::ParameterError, /a list of at most/)
  end
end
