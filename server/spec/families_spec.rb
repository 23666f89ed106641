# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Families" do
  include Api

  around { |example| Dir.mktmpdir { |folder| example.run if (@folder = File.realpath(folder)) } }

  let(:cut) { Studio.cut(@folder) }
  let(:shots) { cut.loaded_shots }

  def form(*members, name: "Jetty") = call(:post, "/cuts/#{cut.id}/families", {name:, shots: members.map(&:id), words: "family #{name} formed"}).then { json["families"]&.last }

  def put(recipe, exposure) = call(:put, "/recipes/#{recipe["id"]}", {revision: recipe["revision"], document: Studio.balance("r#{recipe["id"]}", exposure:), words: "x"})

  def exposures(shot) = Server::Shot.find(shot.id).grade.entries.map { |entry| entry.step.exposure }

  it "run their ground before each member's steps and their finish after, and reach every member" do
    shots[0].recipe.accept(revision: 0, document: Studio.balance("own", exposure: 0.5), words: "x")
    family = form(*shots)
    expect(family.values_at("hero", "shots")).to eq([shots[0].id, shots.map(&:id)])
    before = shots.map { |shot| Server::Shot.find(shot.id).revision }
    put(family["ground"], 0.25)
    put(family["finish"], 0.75)
    expect(shots.map { |shot| exposures(shot) }).to eq([[0.25, 0.5, 0.75], [0.25, 0.75]])
    expect(shots.map { |shot| Server::Shot.find(shot.id).revision }.zip(before).all? { |now, then_| now != then_ }).to be(true)
    call(:post, "/cuts/#{cut.id}/washes", {name: "Over all", words: "x"})
    put(json["wash"]["recipe"], 1.0)
    expect(exposures(shots[1])).to eq([0.25, 0.75, 1.0])
  end

  it "are joined and left, and all of it is undone" do
    family = form(shots[0])
    put(family["ground"], 0.25)
    call(:patch, "/shots/#{shots[1].id}/family", {family: family["id"]})
    expect([json["families"][0]["shots"], json["members"][shots[1].id.to_s]]).to eq([shots.map(&:id), family["id"]])
    call(:patch, "/families/#{family["id"]}", {hero: shots[1].id, name: "Pier", words: "hero"})
    expect(json["families"][0].values_at("hero", "name")).to eq([shots[1].id, "Pier"])
    call(:patch, "/shots/#{shots[0].id}/family", {family: nil})
    expect(shots.map { |shot| exposures(shot) }).to eq([[], [0.25]])
    5.times { call(:post, "/projects/#{cut.project_id}/undo") }
    call(:get, "/cuts/#{cut.id}")
    expect([json["families"], shots.map { |shot| exposures(shot) }]).to eq([[], [[], []]])
    5.times { call(:post, "/projects/#{cut.project_id}/redo") }
    expect(shots.map { |shot| exposures(shot) }).to eq([[], [0.25]])
  end

  it "are refused with the field that is wrong" do
    form(name: "Empty")
    expect([last_response.status, json["path"]]).to eq([422, "shots"])
    form(shots[0], name: "")
    expect([last_response.status, json["path"]]).to eq([422, "name"])
    family = form(shots[0])
    [[:patch, "/families/#{family["id"]}", {hero: shots[1].id, words: "x"}, "hero"], [:patch, "/shots/#{shots[1].id}/family", {family: 999}, "family"]].each do |method, path, body, field|
      call(method, path, body)
      expect([last_response.status, json["path"]]).to eq([422, field])
    end
  end

  it "go into what is delivered" do
    put(form(*shots)["finish"], 1.0)
    plan = Server::Cut.find(cut.id).then { |fresh| fresh.source_of(fresh.loaded_shots.last) }.plan
    expect(plan.recipe.entries.map { |entry| entry.step.exposure }).to eq([1.0])
  end

  it "propose what makes a member like its hero, with its recipe or after one's own" do
    allow(Mordant::Match::Proposal).to receive(:new).and_return(double(parameters: {"exposure" => 0.4}, overlaps: [0.2, 0.9]))
    shots[0].recipe.accept(revision: 0, document: Studio.balance("look", contrast: 1.2), words: "x")
    shots[1].recipe.accept(revision: 0, document: Studio.balance("own", exposure: 0.1), words: "x")
    call(:post, "/shots/#{shots[1].id}/match", {hero: shots[0].id})
    expect(json.values_at("before", "after")).to eq([0.2, 0.9])
    expect(json["document"]["steps"].map { |step| [step["name"], step["parameters"]["exposure"]] }).to eq([["Balance", 0.1], ["Match #{shots[0].name}", 0.4]])
    shots[1].recipe.reload.accept(revision: 1, document: json["document"], words: "x")
    call(:post, "/shots/#{shots[1].id}/match", {hero: shots[0].id}) # takes the place of the match before
    expect(json["document"]["steps"].size).to eq(2)
    call(:post, "/shots/#{shots[1].id}/match", {hero: shots[0].id, recipe: true})
    expect(json["document"]["steps"].map { |step| [step["name"], step["parameters"]["contrast"]] }).to eq([["Match #{shots[0].name}", 1.0], ["Balance", 1.2]])
    [[{hero: 0}, "hero"], [{hero: shots[0].id, frame: 0}, "frame"], [{hero: shots[0].id, region: "x"}, "region"]].each do |body, path|
      call(:post, "/shots/#{shots[1].id}/match", body)
      expect([last_response.status, json["path"]]).to eq([422, path])
    end
  end
end
