# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::OwnHistory, type: :request do
  include Accounts

  let(:cut) { Studio.cut(@folder) }
  let(:shots) { cut.loaded_shots }
  let(:ida) { account("grade", "Ida Rooke") }
  let(:bo) { account("grade", "Bo Larch") }
  let(:one) { as(ida) }
  let(:two) { as(bo) }

  def grade(session, shot, exposure, words)
    recipe = Server::Recipe.find(shot.recipe.id)
    status = ask(session, "PUT", "/recipes/#{recipe.id}", {revision: recipe.revision, words:, document: {steps: [{id: "a", kind: "balance", parameters: {exposure:}}]}})
    [status, JSON.parse(session.last_response.body)]
  end

  def exposure(shot) = Server::Recipe.find(shot.recipe.id).document["steps"].dig(0, "parameters", "exposure")

  def go(session, direction)
    status = ask(session, "POST", "/projects/#{cut.project_id}/#{direction}")
    [status, JSON.parse(session.last_response.body)]
  end

  it "takes back one's own last change and leaves a colleague's, and does it again" do
    grade(one, shots[0], 1.0, "up")
    grade(two, shots[1], 0.5, "theirs")
    expect(JSON.parse(one.get("/api/projects/#{cut.project_id}").body)).to include("undo" => "up", "redo" => nil)
    status, answer = go(one, "undo")
    expect([status, answer["recipes"].map { |recipe| recipe["shot"] }, exposure(shots[0]), exposure(shots[1])]).to eq([200, [shots[0].id], nil, 0.5])
    expect(answer["project"]).to include("undo" => nil, "redo" => "up")
    expect(JSON.parse(two.get("/api/projects/#{cut.project_id}").body)).to include("undo" => "theirs")
    go(one, "redo")
    expect([exposure(shots[0]), exposure(shots[1])]).to eq([1, 0.5])
    go(one, "undo")
    go(two, "undo")
    expect([exposure(shots[0]), exposure(shots[1])]).to eq([nil, nil])
    go(two, "redo")
    go(one, "redo")
    expect([exposure(shots[0]), exposure(shots[1])]).to eq([1, 0.5])
    expect(go(two, "redo").last["recipes"]).to eq([])
  end

  it "says whose change builds on it, and changes nothing then" do
    grade(one, shots[0], 1.0, "up")
    grade(two, shots[0], 0.5, "down a little")
    expect(go(one, "undo")).to match([409, include("error" => /Bo Larch has gone on from there \(down a little\)/)])
    expect(exposure(shots[0])).to eq(0.5)
    go(two, "undo")
    expect(exposure(shots[0])).to eq(1)
    expect(go(one, "undo").first).to eq(200)
    expect(exposure(shots[0])).to be_nil
  end

  def change(session, shot, words)
    recipe = Server::Recipe.find(shot.recipe.id)
    ask(session, "PUT", "/recipes/#{recipe.id}", {revision: recipe.revision, words:, document: recipe.document.deep_dup.tap { |document| yield document["steps"] }})
  end

  def steps(shot) = Server::Recipe.find(shot.recipe.id).document["steps"].map { |step| [step["id"], *step["parameters"].values_at("exposure", "tint").compact, *step.dig("matte", "contributors")&.map { |part| part["kind"] }] }

  it "takes back one's own number or step where a colleague went on with another of the same recipe" do
    grade(one, shots[0], 1.0, "up")
    change(two, shots[0], "greener") { |list| list.first["parameters"]["tint"] = -4 }
    change(one, shots[0], "one more") { |list| list.unshift({"id" => "mine", "kind" => "balance", "parameters" => {"tint" => 2}}) }
    change(two, shots[0], "theirs") { |list| list << {"id" => "theirs", "kind" => "balance", "parameters" => {"exposure" => 0.5}} }
    go(one, "undo")
    expect(steps(shots[0])).to eq([["a", 1, -4], ["theirs", 0.5, 0]])
    expect(go(one, "undo")).to match([409, include("error" => /Bo Larch has gone on from there \(greener\)/)])
    go(one, "redo")
    expect(steps(shots[0])).to eq([["mine", 0, 2], ["a", 1, -4], ["theirs", 0.5, 0]])
  end

  it "takes nothing back that a colleague's step needs by now" do
    disc, linked = {"id" => "e", "kind" => "ellipse"}, {"id" => "l", "kind" => "linked", "parameters" => {"step" => "mine"}}
    change(one, shots[0], "the face") { |list| list << {"id" => "mine", "kind" => "balance", "matte" => {"contributors" => [disc]}} }
    change(two, shots[0], "all but it") { |list| list << {"id" => "theirs", "kind" => "balance", "matte" => {"contributors" => [linked]}} }
    expect(steps(shots[0])).to eq([["mine", 0, 0, "ellipse"], ["theirs", 0, 0, "linked"]])
    expect(go(one, "undo")).to match([409, include("error" => /Bo Larch has gone on from there \(all but it\)/)])
    expect(steps(shots[0]).size).to eq(2)
  end

  it "goes back over several of one's own, past what was taken back already" do
    [1, 2, 3].each { |stop| grade(one, shots[0], stop * 0.25, "to #{stop}") }
    grade(two, shots[1], 0.5, "theirs")
    steps = Array.new(3) { go(one, "undo") && exposure(shots[0]) }
    expect(steps).to eq([0.5, 0.25, nil])
    expect(go(one, "undo").last["recipes"]).to eq([])
    expect(Array.new(3) { go(one, "redo") && exposure(shots[0]) }).to eq([0.25, 0.5, 0.75])
    expect(exposure(shots[1])).to eq(0.5)
  end

  it "says in the history who did what, and on which shot" do
    grade(one, shots[0], 1.0, "up")
    ask(two, "POST", "/cuts/#{cut.id}/flags", {shots: shots.map(&:id), flag: "weld", words: "flagged"})
    lines = JSON.parse(two.get("/api/projects/#{cut.project_id}/history").body)["changes"]
    expect(lines.map { |line| line.values_at("words", "who", "shot") }).to eq([["up", "Ida Rooke", shots[0].name], ["flagged", "Bo Larch", "#{shots.size} shots"]])
  end

  it "loses nothing that was accepted when twenty write one recipe at once" do
    recipe = shots[0].recipe
    token = Server::SignIn.begin(ida, address: "x", browser: "x").last
    accepted = Array.new(20) do |client|
      Thread.new do
        session = as(nil)
        session.set_cookie("mordant_person=#{token}")
        kept = []
        while kept.empty?
          seen = JSON.parse(session.get("/api/recipes/#{recipe.id}").body)
          mine = {"id" => "c#{client}n#{kept.size}", "kind" => "balance", "parameters" => {"exposure" => 0.1}}
          status = ask(session, "PUT", "/recipes/#{recipe.id}", {revision: seen["revision"], words: "one more", document: {steps: seen["document"]["steps"] + [mine]}})
          raise "#{status}: #{session.last_response.body}" unless [200, 409].include?(status)

          kept << mine["id"] if status == 200
        end
        kept
      end
    end.flat_map(&:value)
    expect(Server::Recipe.find(recipe.id)).to have_attributes(revision: 20)
    expect(Server::Recipe.find(recipe.id).document["steps"].map { |step| step["id"] }).to match_array(accepted)
  end
end

RSpec.describe Server::Together, type: :request do
  include Accounts

  let(:cut) { Studio.cut(@folder) }
  let(:shot) { cut.loaded_shots.first }

  def state = described_class.state([cut.project_id])

  it "says who is where and whose hand is on what, until they leave or are silent" do
    ida = as(account("look", "Ida Rooke"))
    place = {window: "w1", room: "bench", project: cut.project_id, cut: cut.id, shot: shot.id, recipe: shot.recipe.id}
    expect(ask(ida, "PUT", "/presence", place.merge(touching: true))).to eq(200)
    people = -> { state[["presence", cut.project_id, cut.project_id]][:people] }
    expect(people.call).to match([include(window: "w1", name: "Ida Rooke", initials: "IR", room: "bench", shot: shot.id, recipe: shot.recipe.id, touching: true)])
    ask(ida, "PUT", "/presence", place.merge(shot: 999_999, touching: false))
    expect(people.call).to match([include(shot: nil, touching: false)])
    Server::Presence.update_all(seen_at: Time.now - Server::Presence::GONE - 1)
    expect(people.call).to eq([])
    ask(ida, "PUT", "/presence", place)
    ask(ida, "PUT", "/presence", {window: "w1", leaving: true})
    expect(people.call).to eq([])
    (Server::Presence::MOST + 3).times { |n| ask(ida, "PUT", "/presence", place.merge(window: "w#{n}")) }
    expect(Server::Presence.count).to eq(Server::Presence::MOST)
    [{window: "a b"}, {room: "kitchen"}].each { |odd| expect(ask(ida, "PUT", "/presence", place.merge(odd))).to eq(422) }
  end

  it "tells which recipes have changed, and apart from that when the cut is another" do
    before = state[["standing", cut.project_id, cut.project_id]]
    shot.recipe.accept(revision: 0, words: "up", document: {"steps" => [{"id" => "a", "kind" => "balance"}]})
    told = state
    expect(told[["recipe", cut.project_id, shot.recipe.id]]).to eq(id: shot.recipe.id, revision: 1)
    expect(told[["standing", cut.project_id, cut.project_id]]).to include(turn: before[:turn])
    expect(told[["standing", cut.project_id, cut.project_id]][:head]).not_to eq(before[:head])
    call(:post, "/cuts/#{cut.id}/flags", {shots: [shot.id], flag: "weld", words: "flagged"})
    expect(json["project"]["turn"]).to eq(before[:turn] + 1)
    call(:put, "/shots/#{shot.id}/poster", {frame: 0})
    expect(state[["standing", cut.project_id, cut.project_id]][:turn]).to eq(before[:turn] + 2)
    call(:post, "/projects/#{cut.project_id}/undo")
    expect(json["project"]["turn"]).to eq(before[:turn] + 3)
  end
end
