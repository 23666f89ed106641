# frozen_string_literal: true

require "spec_helper"
require "tmpdir"
require "vips"

RSpec.describe Mordant::CommandLine do
  around { |example| Dir.mktmpdir { |folder| (@folder = folder) && example.run } }

  def run(*arguments)
    output, complaints = StringIO.new, StringIO.new
    [described_class.run(arguments, output:, complaints:), output.string, complaints.string]
  end

  def file(name) = File.join(@folder, name)

  def recipe(*steps) = file("recipe.json").tap { |path| File.write(path, JSON.generate(steps:)) }

  def grade(recipe, source, target) = run("grade", "--recipe", recipe, "--from", "acescct", "--to", "acescct", source, target)

  def code(path, x = 0, y = 0, width: 8) = Mordant::Media::Stills.read(path).rgb[0, y * width + x] / 65_535.0

  it "averages frames of a sequence, those there are at its ends, and moves keys from its first frame" do
    4.times { |n| Mordant::Media::Stills.write(Frames.flat([0.2 + n / 10.0] * 3), file(format("in.%04d.png", n + 31))) }
    expect(grade(recipe({id: "a", kind: "average", parameters: {frames: 1}}), file("in.%04d.png"), file("mean.%04d.tif"))).to match([0, "", ""])
    expect((31..34).map { |n| code(file(format("mean.%04d.tif", n))) }).to match([0.25, 0.3, 0.4, 0.45].map { |wanted| be_within(2e-4).of(wanted) })
    moving = {id: "b", kind: "balance", parameters: {}, keys: [{frame: 0, parameters: {exposure: 0}}, {frame: 2, parameters: {exposure: 1}}]}
    expect(grade(recipe(moving), file("in.%04d.png"), file("moved.%04d.dpx")).first).to eq(0)
    expect((31..34).map { |n| code(file(format("moved.%04d.dpx", n))) - (0.2 + (n - 31) / 10.0) }).to match([0, 0.5, 1, 1].map { |stops| be_within(2e-4).of(stops / 17.52) })
  end

  it "softens and sharpens, writes 16 bits, and keeps what a matte leaves out" do
    edge = Numo::SFloat.zeros(3, 60, 80) + 0.2
    edge[true, true, 40..] = 0.6
    Mordant::Media::Stills.write(Mordant::Frame.new(edge.reshape(3, 4800), width: 80, height: 60, encoding: "acescct"), file("in.png"))
    matte = {contributors: [{id: "e", kind: "ellipse", mode: "add", parameters: {radii: [0.2, 0.2], softness: 0}}]}
    expect(grade(recipe({id: "s", kind: "soften", parameters: {size: 0.05, luma: 1, colour: 1}, matte:}), file("in.png"), file("out.exr")).first).to eq(0)
    image = Vips::Image.new_from_file(file("out.exr"))
    expect([image.getpoint(39, 30)[0], image.getpoint(39, 5)[0], image.getpoint(10, 30)[0]]).to match([be_between(0.3, 0.42), be_within(1e-3).of(0.2), be_within(1e-3).of(0.2)])
  end

  it "writes a step's matte as grey of 16 bits" do
    Mordant::Media::Stills.write(Frames.flat([0.4] * 3, width: 90, height: 60), file("in.png"))
    made = recipe({id: "one", kind: "balance", parameters: {exposure: 1}}, {id: "two", kind: "balance", parameters: {exposure: 1}, matte: {contributors: [{id: "e", kind: "ellipse", mode: "add", parameters: {}}], strength: 0.5}})
    expect(run("matte", "--recipe", made, "--step", "two", "--from", "acescct", file("in.png"), file("matte.png"))).to eq([0, "", ""])
    image = Vips::Image.new_from_file(file("matte.png"))
    expect([image.bands, image.format, image.getpoint(45, 30)[0], image.getpoint(0, 0)[0]]).to eq([1, :ushort, 32_768.0, 0.0])
    run("matte", "--recipe", made, "--step", "one", "--from", "acescct", file("in.png"), file("all.png"))
    expect(Vips::Image.new_from_file(file("all.png")).min).to eq(65_535.0)
    expect(run("matte", "--recipe", made, "--step", "three", "--from", "acescct", file("in.png"), file("x.png"))).to match([1, "", /step: expected the id of a step of the recipe, found "three"/])
    expect(run("matte", "--recipe", made, "--step", "two", "--from", "acescct", file("in.png"), file("matte.png"))).to match([1, "", /matte\.png: it exists/])
    expect(run("matte", "--step", "two", file("in.png"), file("x.png")).first).to eq(2)
  end

  it "lists every step and every contributor with what they declare" do
    listed = JSON.parse(run("steps")[1])
    expect(listed["steps"].to_h { |one| one.values_at("id", "reach") }).to include("soften" => "area", "sharpen" => "area", "average" => "time", "lens_shading" => "area", "balance" => "pixel")
    expect(listed["contributors"].to_h { |one| one.values_at("id", "family") }).to include("ellipse" => "shape", "key" => "key", "outline" => "shape", "linked" => "elsewhere", "luminance" => "key")
    expect(listed["refinements"].map { |one| one["id"] }).to eq(%w[specks grow edges blur response invert])
    radii = listed["contributors"].find { |one| one["id"] == "ellipse" }["parameters"].find { |one| one["name"] == "radii" }
    expect(radii).to include("channels" => %w[across down], "unit" => "share", "min" => 0.001, "max" => 8.0, "neutral" => be_within(1e-9).of(1 / 3.0))
  end
end
