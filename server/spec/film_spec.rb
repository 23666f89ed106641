# frozen_string_literal: true

require_relative "spec_helper"
require "rubygems/package"

RSpec.describe "Film", type: :request do
  around { |example| Dir.mktmpdir { |folder| (@folder = File.realpath(folder)) && example.run } }

  let(:cut) { Studio.cut(@folder) }
  let(:shot) { cut.loaded_shots.first }
  let(:bundle) { {"id" => "f", "name" => "Film", "enabled" => true, "strength" => 0.8} }
  let(:steps) do
    [{"id" => "h", "kind" => "halation", "bundle" => "f", "parameters" => {"amount" => 0.5, "from" => -1.0, "size" => 0.02}}, {"id" => "g", "kind" => "grain", "bundle" => "f", "parameters" => {"amount" => 2.0}},
      {"id" => "e", "kind" => "emulsion", "bundle" => "f", "parameters" => {"negative" => "petrel", "print" => "fulmar"}}]
  end
  let(:film) { {"steps" => steps, "bundles" => [bundle]} }

  def store(document, of: shot) = Server::Recipe.find(of.recipe.id).then { |recipe| recipe.accept(revision: recipe.revision, document:, words: "x") }

  def fresh = Server::Cut.find(cut.id)

  def wish(frame, **more) = Server::Pictures::Wish.new(cut: fresh, frame:, screen: Server::Screens.of(cut.project, nil), **more)

  def seen(frame, **more) = Server::Pictures::Desk.current.picture(wish(frame, **more)).first.rgb

  def told = JSON.parse(last_response.body.b[4, last_response.body.unpack1("L<")])

  def ask(**body) = call(:post, "/cuts/#{cut.id}/picture", {frame: 2, **body}) && told

  it "comes with its bundle on other shots, in swatches and their files; steps alone come without" do
    store(film)
    other = cut.loaded_shots[1]
    call(:post, "/cuts/#{cut.id}/paste", {shots: [other.id], steps:, bundles: [bundle], words: "film"})
    pasted = fresh.loaded_shots[1].recipe.document
    expect(pasted["bundles"].map { |one| one.except("id") }).to eq([bundle.except("id")])
    expect(pasted["steps"].map { |step| step["bundle"] }.uniq).to eq([pasted["bundles"][0]["id"]])
    expect(pasted["bundles"][0]["id"]).not_to eq("f")
    call(:post, "/cuts/#{cut.id}/paste", {shots: [other.id], steps: steps.first(1), words: "halation", replace: true})
    expect(fresh.loaded_shots[1].recipe.document.then { |one| [one["bundles"], one["steps"].map { |step| step["bundle"] }] }).to eq([nil, [nil]])
    swatch = Server::Swatch.keep(fresh.loaded_shots.first, frame: 2)
    expect(swatch.document["bundles"]).to eq([bundle])
    expect(Server::Swatch.bring_in(swatch.packed).document).to eq(swatch.document)
  end

  it "has grain by the clip's own frames: a trim, a split and another list leave it where it is, and no two frames have the same" do
    store({"steps" => steps[1, 1].map { |step| step.except("bundle") }})
    grain = ->(one) { (0...one.length).to_h { |at| [one.source_in + at, Mordant::Grade::Recipe.new(one.recipe.document).entries.first && one.grade.at(at).entries.first.stamps] } }
    whole = grain[fresh.loaded_shots.first]
    expect(whole.values.uniq.size).to eq(whole.size)
    call(:post, "/cuts/#{cut.id}/assembly", {operation: "trim", shot: shot.id, head: 2})
    expect(grain[fresh.loaded_shots.first]).to eq(whole.reject { |frame, _| frame < 2 })
    picture = seen(0)
    expect(seen(0)).to eq(picture)
  end

  it "shows the light that a step adds by itself" do
    store(Studio.balance("h", exposure: 1.0, offset: [-0.05, 0.0, 0.0, 0.0]))
    with, without = seen(2), seen(2, upto: nil, trial: {shot.recipe.id => Mordant::Grade::Recipe.new("steps" => [])})
    light = Mordant::Colour::Transfer::Acescct.method(:decode)
    added = light[Numo::DFloat.cast(seen(2, adds: "h"))]
    expect((added - (light[Numo::DFloat.cast(with)] - light[Numo::DFloat.cast(without)]).clip(0, nil)).abs.max).to be < 1e-3
    expect(added.max).to be > 0.001
    expect(seen(2, adds: "gone")).to eq(with)
    expect(ask(adds: "h", size: "full")).to include("size" => "full")
  end

  it "tells where light lies on film, and whether black and white touch their guides" do
    store(film)
    found = ask(trial: [{recipe: shot.recipe.id, document: film}], tap: "e", patch: [0.25, 0.25, 0.5, 0.5], guides: {black: 0.0, white: 0.5})
    low, high = found["exposed"]["ends"]
    expect(found["exposed"]["patch"]).to be_between(low, high)
    expect(found["shapes"]["e"].keys).to include("negative_green", "toe", "shoulder", "line")
    expect(found["guides"].transform_values { |guide| guide.keys.sort }).to eq({"black" => %w[beyond codes place state], "white" => %w[beyond codes place state]})
    expect(ask(trial: [{recipe: shot.recipe.id, document: film}], tap: "g")).not_to have_key("exposed")
    expect(ask).not_to have_key("guides")
    call(:post, "/cuts/#{cut.id}/picture", {frame: 2, guides: {black: 2}})
    expect([last_response.status, json["path"]]).to eq([422, "guides"])
  end

  it "plays grain and drags it on the ladder, without what may rest while a hand moves" do
    store({"steps" => [Studio.balance(exposure: 0.5)["steps"][0], *steps.drop(1).map { |step| step.except("bundle") }, {"id" => "t", "kind" => "gate", "parameters" => {"amount" => 1.0}}]})
    call(:post, "/cuts/#{cut.id}/ladder", {frame: 2, ladder: {step: nil}})
    noise = told["ladder"]["rungs"].flatten.filter_map { |strand| strand["noise"] }
    expect([last_response.status, noise.size, noise[0].keys.sort]).to eq([200, 1, %w[at edge name reach]])
    call(:post, "/cuts/#{cut.id}/ladder", {frame: 3, ladder: {step: nil, held: [noise[0]["name"]]}})
    again = told["ladder"]["rungs"].flatten.filter_map { |strand| strand["noise"] }
    expect([again[0]["name"] == noise[0]["name"], again[0]["at"] == noise[0]["at"]]).to eq([true, false])
    call(:post, "/cuts/#{cut.id}/ladders", {first: 0, count: 4})
    expect(told["ladders"].map { |one| one["rungs"] }).to all(be_nil) # the gate is played as it is
    store({"steps" => steps[1, 1].map { |step| step.except("bundle") }})
    call(:post, "/cuts/#{cut.id}/ladders", {first: 0, count: 4})
    expect(told["ladders"].map { |one| one["rungs"].flatten.find { |strand| strand["noise"] }["noise"]["at"] }.uniq.size).to eq(4)
  end

  it "leaves as tables of three sizes for on set, which say what they leave out and how near they are" do
    store(film)
    call(:get, "/shots/#{shot.id}/on_set.tar")
    files = Gem::Package::TarReader.new(StringIO.new(last_response.body)).to_h { |entry| [File.basename(entry.full_name), entry.read.force_encoding("UTF-8")] }
    expect(files.keys.map { |name| name[/_\d+\.cube|read_me\.txt/] }).to eq(%w[_17.cube _33.cube _65.cube read_me.txt])
    table = Mordant::Lut::Cube.new("small.cube", files.values[0]).table
    expect(table.lattice.size).to eq(17)
    said = files["read_me.txt"]
    expect(said).to include("Holds: Emulsion.", "Leaves out, as no table can hold it: Halation, Grain.", "17 nodes: on the colours of the shot mean")
    bake = Mordant::Grade::Bake.new(plan: cut.project.plan(fresh.loaded_shots.first.grade.within_luts, shot.clip.source_encoding), output: cut.project.output(cut.project.view), size: 33)
    expect(said[/33 nodes:.*on all there are mean (\d+\.\d+)/, 1].to_f).to be_within(0.006).of(bake.error.mean * 1023)
  end
end
