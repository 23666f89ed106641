# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::CommandLine, :folder do
  def run(*arguments, input: "")
    output, complaints = StringIO.new, StringIO.new
    code = described_class.run(arguments, input: StringIO.new(input), output:, complaints:)
    [code, output.string, complaints.string]
  end

  it "applies an operation or a CDL by itself" do
    lines = [{operation: "gamut-compress-1.3", from: "aces2065-1", rgb: [[0.18, 0.18, 0.18]]}, {cdl: {slope: [2, 1, 1]}, clamp: false, rgb: [[0.7, 0.5, 0.5]]},
      {cdl: {slope: [2, 1, 1]}, inverse: true, rgb: [[0.8, 0.5, 0.5]]}, {cdl: {slope: [2, -1, 1]}, rgb: [[0, 0, 0]]}, {operation: "x", rgb: [[0, 0, 0]]},
      {from: "acescg", to: "acescg", to_range: "legal", rgb: [[0, 1, 0.5]]}, {from: "acescg", to: "acescg", to_range: "wide", rgb: [[0, 1, 0.5]]}]
    _, output, = run("convert", "--batch", input: lines.map { |line| JSON.generate(line) }.join("\n"))
    found = output.lines.map { |line| JSON.parse(line) }
    expect(found[0]["rgb"][0]).to all(be_within(1e-9).of(0.18))
    expect(found[1]["rgb"]).to eq([[1.4, 0.5, 0.5]])
    expect(found[2]["rgb"]).to eq([[0.4, 0.5, 0.5]])
    expect(found[3]["error"]).to match(/slope: expected three numbers of 0 or more/)
    expect(found[4]["error"]).to match(/no operation "x"/)
    expect(found[5]["rgb"][0]).to match([64 / 1023.0, 940 / 1023.0, 502 / 1023.0].map { |x| be_within(1e-9).of(x) })
    expect(found[6]["error"]).to match(/to_range: expected full or legal/)
  end

  it "converts rows in the order given" do
    code, output, = run("convert", "--from", "acescct", "--to", "aces2065-1", input: "[[0.4135884, 0.4135884, 0.4135884]]")
    expect(code).to eq(0)
    expect(JSON.parse(output)).to match_rows([[0.18, 0.18, 0.18]], absolute: 1e-6)
  end

  it "answers a batch line by line, faults among them" do
    lines = [{from: "aces2065-1", to: "rec709-bt1886", rendering: "sdr-video-1.0", rgb: [[0.18, 0.18, 0.18]]}.to_json, "{",
      {from: "acescg", to: "nowhere", rgb: [[1, 1, 1]]}.to_json, {from: "acescg", to: "acescct", rgb: [[1, 1]]}.to_json,
      {from: "acescg", to: "acescct", rgb: []}.to_json]
    code, output, = run("convert", "--batch", input: lines.join("\n"))
    answers = output.lines.map { |line| JSON.parse(line) }
    expect(code).to eq(0)
    expect(answers[0]["rgb"]).to match_rows([[0.38953] * 3], absolute: 1e-4)
    expect(answers[1..3].map { |answer| answer["error"] }).to match([/JSON/, /no encoding "nowhere"/, /rgb\[0\]: expected three finite numbers/])
    expect(answers[4]).to eq("rgb" => [])
  end

  it "lists encodings and renderings" do
    listed = JSON.parse(run("encodings")[1])
    expect(listed["encodings"].map { |one| one["id"] }).to include("acescct", "rec709-bt1886", "s-log3-s-gamut3.cine")
    expect(listed["renderings"].map { |one| one["id"] }).to include("sdr-video-1.0")
  end

  it "grades a still, refuses to overwrite, and names the fault in a recipe" do
    source = File.join(@folder, "in.png")
    target = File.join(@folder, "out.png")
    recipe = File.join(@folder, "recipe.json")
    Mordant::Media::Stills.write(Frames.flat([0.41, 0.41, 0.41]), source)
    File.write(recipe, Frames.recipe(exposure: 1.0).to_h.to_json)
    arguments = ["grade", "--recipe", recipe, "--from", "acescct", "--to", "acescct", source, target]
    expect(run(*arguments).first).to eq(0)
    expect(Mordant::Media::Stills.read(target).rgb[0, 0] / 65_535.0).to be_within(2e-5).of(0.41 + 1 / 17.52)
    expect(run(*arguments)).to match([1, "", /out\.png: it exists/])
    File.write(recipe, '{"steps": [{"id": "a", "kind": "balance", "parameters": {"exposure": 77}}]}')
    expect(run(*arguments)[2]).to match(/recipe\.json: steps\[0\]\.parameters\.exposure: expected a number/)
  end

  it "grades a sequence frame by frame" do
    Footage.steps(@folder, frames: 3)
    recipe = File.join(@folder, "recipe.json")
    File.write(recipe, '{"steps": []}')
    code, = run("grade", "--recipe", recipe, "--from", "acescct", "--to", "acescct", File.join(@folder, "steps.mkv"), File.join(@folder, "out.%03d.png"))
    expect(code).to eq(0)
    expect(Mordant::Media::Stills.read(File.join(@folder, "out.002.png")).rgb[0, 0]).to be_within(50).of(Footage.code(2))
  end

  it "grades a sequence named by a pattern, keeping its numbers" do
    recipe = File.join(@folder, "recipe.json")
    File.write(recipe, '{"steps": []}')
    2.times { |n| Mordant::Media::Stills.write(Frames.flat([0.2 + n / 10.0] * 3), File.join(@folder, format("in.%04d.png", n + 31))) }
    arguments = ["grade", "--recipe", recipe, "--from", "acescct", "--to", "acescct"]
    expect(run(*arguments, File.join(@folder, "in.%04d.png"), File.join(@folder, "out.%04d.png")).first).to eq(0)
    expect(Mordant::Media::Stills.read(File.join(@folder, "out.0032.png")).rgb[0, 0] / 65_535.0).to be_within(2e-4).of(0.3)
    expect(run(*arguments, File.join(@folder, "none.%04d.png"), File.join(@folder, "x.%04d.png"))).to match([1, "", /no such numbered frames/])
  end

  it "names the steps a table cannot hold, and bakes the others" do
    shading = {id: "s", kind: "lens_shading", name: "Old zoom", parameters: {amount: [1, 0, 0, 0]}}
    balance = {id: "b", kind: "balance", parameters: {contrast: 1.2}}
    answers = {"both" => [shading, balance], "one" => [balance]}.map do |name, steps|
      File.write(recipe = File.join(@folder, "#{name}.json"), JSON.generate(steps:))
      _, output, = run("bake", "--recipe", recipe, "--from", "acescct", "--to", "acescct", "--size", "17", File.join(@folder, "#{name}.cube"))
      JSON.parse(output)["left_out"]
    end
    expect(answers).to eq([["Old zoom"], []])
    expect(File.read(File.join(@folder, "both.cube"))).to eq(File.read(File.join(@folder, "one.cube")))
  end

  it "bakes a recipe into a .cube file and states its error" do
    recipe, cube = %w[recipe.json look.cube].map { |name| File.join(@folder, name) }
    File.write(recipe, Frames.recipe(exposure: 0.3, saturation: 1.1).to_h.to_json)
    code, output, = run("bake", "--recipe", recipe, "--from", "logc3-ei800-wg3", "--to", "rec709-bt1886", "--rendering", "sdr-video-1.0", "--size", "33", cube)
    expect(code).to eq(0)
    expect(JSON.parse(output)).to include("size" => 33, "mean" => be_between(0.0, 0.01))
    expect(Mordant::Lut::Cube.read(cube).lattice.size).to eq(33)
    expect(run("bake", "--recipe", recipe, "--from", "acescct", "--to", "srgb", "--size", "33", cube)).to match([1, "", /it exists/])
    expect(run("bake", "--recipe", recipe, "--from", "acescct", "--to", "srgb", "--size", "1", "#{cube}.cube")).to match([1, "", /size: expected/])
    expect(run("bake", "--recipe", recipe, cube).first).to eq(2)
  end

  it "tells wrong usage from bad input" do
    expect(run("nothing").first).to eq(2)
    expect(run("convert", "--from", "acescg").first).to eq(2)
    expect(run("convert", "--nothing").first).to eq(2)
    expect(run("probe", "one.mov", "two.mov").first).to eq(2)
    expect(run("probe", "one.mov", "--port", "0").first).to eq(2)
    expect(run("probe", File.join(@folder, "none.mov"))).to match([1, "", /none\.mov: the file is not there/])
    expect(run("convert", "--from", "acescg", "--to", "acescct", input: "[[1, 2]]").first).to eq(1)
    expect(run("--help")).to match([0, /usage/, ""])
  end
end
