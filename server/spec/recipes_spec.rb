# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Grades", type: :request do
  let(:cut) { Studio.cut(@folder) }
  let(:recipe) { cut.loaded_shots.first.recipe }

  def put(document, revision:, words: "Balance: exposure", **more)
    call(:put, "/recipes/#{recipe.id}", {revision:, document:, words:, **more})
  end

  def exposure = recipe.reload.document.dig("steps", 0, "parameters", "exposure")

  it "stores a change when it is made, complete and with its revision" do
    put(Studio.balance(exposure: 0.5), revision: 0)
    expect(last_response.status).to eq(200)
    expect(json["recipe"]).to include("revision" => 1)
    expect(json.dig("recipe", "document", "steps", 0, "parameters")).to include("exposure" => 0.5, "gain" => [1.0] * 4)
    expect(json["project"]).to include("undo" => "Balance: exposure", "redo" => nil)
  end

  it "answers a stale write with 409 and what is stored, and changes nothing" do
    put(Studio.balance(exposure: 0.5), revision: 0)
    put(Studio.balance(exposure: 2.0), revision: 0)
    expect(last_response.status).to eq(409)
    expect(json["recipe"]).to include("revision" => 1)
    expect(exposure).to eq(0.5)
  end

  it "names the path of a fault with 422" do
    put(Studio.balance(gain: [1, 1, 9, 1]), revision: 0)
    expect(last_response.status).to eq(422)
    expect(json).to include("path" => "steps[0].parameters.gain[2]", "expected" => "a number in 0.0..4.0")
    [{revision: "0"}, {revision: 0, words: ""}, {revision: 0, document: []}, {revision: 0, document: {steps: [{id: "a", kind: "x"}]}}].each do |wrong|
      call(:put, "/recipes/#{recipe.id}", {document: Studio.balance, words: "x", **wrong})
      expect(last_response.status).to eq(422), wrong.inspect
    end
    call(:put, "/recipes/#{recipe.id}", '{"revision": 0, "document": {"steps": [NaN]}}')
    expect([last_response.status, json["path"]]).to eq([422, "body"])
    expect(recipe.reload.revision).to eq(0)
  end

  it "refuses texts that the database cannot hold" do
    put({"steps" => [{"id" => "a", "kind" => "balance", "name" => "Sk\0y"}]}, revision: 0)
    expect([last_response.status, json["error"]]).to match([422, /without NUL/])
    put(Studio.balance, revision: 0, words: "a\0b")
    expect(last_response.status).to eq(422)
    expect(recipe.reload.revision).to eq(0)
  end

  it "takes back and does again, through many changes" do
    [0.1, 0.2, 0.3].each_with_index { |value, revision| put(Studio.balance(exposure: value), revision:) }
    call(:post, "/projects/#{cut.project_id}/undo")
    expect(json["words"]).to eq("Balance: exposure")
    expect(exposure).to eq(0.2)
    2.times { call(:post, "/projects/#{cut.project_id}/undo") }
    expect(recipe.reload.document).to eq("steps" => [])
    call(:post, "/projects/#{cut.project_id}/undo")
    expect(json).to include("words" => nil, "recipes" => [])
    3.times { call(:post, "/projects/#{cut.project_id}/redo") }
    expect(exposure).to eq(0.3)
    expect(json["project"]).to include("redo" => nil)
  end

  it "keeps what was undone when something else is done instead" do
    put(Studio.balance(exposure: 0.1), revision: 0)
    call(:post, "/projects/#{cut.project_id}/undo")
    put(Studio.balance(exposure: 0.7), revision: 2)
    expect(Server::Revision.order(:id).map { |one| one.after.dig("document", "steps", 0, "parameters", "exposure") }).to eq([0.1, 0.7])
    call(:post, "/projects/#{cut.project_id}/undo")
    call(:post, "/projects/#{cut.project_id}/redo")
    expect(exposure).to eq(0.7)
  end

  it "counts a drag as one change" do
    (0..3).each { |n| put(Studio.balance(exposure: n / 10.0), revision: n, gesture: "g1") }
    put(Studio.balance(exposure: 0.9), revision: 4, gesture: "g2")
    expect(Server::Change.count).to eq(2)
    call(:post, "/projects/#{cut.project_id}/undo")
    expect(exposure).to eq(0.3)
    call(:post, "/projects/#{cut.project_id}/undo")
    expect(recipe.reload.document).to eq("steps" => [])
  end

  it "lets one of two writes at once through" do
    statuses = Array.new(2) do |n|
      Thread.new do
        Server::Recipe.find(recipe.id).accept(revision: 0, document: Studio.balance(exposure: n), words: "x")
        :kept
      rescue Server::Recipe::Conflict
        :conflict
      ensure
        ActiveRecord::Base.connection_handler.clear_active_connections!
      end
    end.map(&:value)
    expect(statuses).to contain_exactly(:kept, :conflict)
  end

  it "is held to its constraints by the database itself" do
    expect { Server::Record.connection.execute("UPDATE recipes SET document = '{}' WHERE id = #{recipe.id}") }.to raise_error(ActiveRecord::StatementInvalid, /recipes_document/)
    expect { cut.loaded_shots.first.update!(length: 0) }.to raise_error(ActiveRecord::StatementInvalid, /shots_frames/)
    expect { Server::Clip.first.update!(path: "/etc/passwd") }.to raise_error(ActiveRecord::StatementInvalid, /clips_path/)
    expect { Server::Clip.first.destroy! }.to raise_error(ActiveRecord::InvalidForeignKey)
  end

  it "puts copies of steps on many shots in one change, and one undo takes all back" do
    cut = Studio.cut(@folder)
    shots = cut.loaded_shots
    shots[0].recipe.accept(revision: 0, document: Studio.balance("own", exposure: 0.2), words: "x")
    steps = Studio.balance(exposure: 1.0)["steps"]
    call(:post, "/cuts/#{cut.id}/paste", {shots: shots.map(&:id), steps:, words: "Balance put on 2 shots"})
    expect(json["recipes"].map { |recipe| recipe["document"]["steps"].size }).to eq([2, 1])
    expect(json["recipes"].flat_map { |recipe| recipe["document"]["steps"].map { |step| step["id"] } }.uniq.size).to eq(3)
    call(:post, "/cuts/#{cut.id}/paste", {shots: [shots[0].id], steps:, replace: true, words: "recipe"})
    expect(json["recipes"][0]["document"]["steps"].size).to eq(1)
    2.times { call(:post, "/projects/#{cut.project.id}/undo") }
    expect(shots.map { |shot| shot.recipe.reload.document["steps"].map { |step| step["id"] } }).to eq([["own"], []])
    call(:post, "/cuts/#{cut.id}/paste", {shots: shots.map(&:id), steps: [{"kind" => "moon"}], words: "x"})
    expect([last_response.status, json["path"]]).to eq([422, "steps[1].kind"])
    expect(shots[1].recipe.reload.document["steps"]).to be_empty
  end

  it "keeps several versions of a shot, one of them in use; which one is part of the history" do
    cut = Studio.cut(@folder)
    shot = cut.loaded_shots.first
    shot.recipe.accept(revision: 0, document: Studio.balance(exposure: 0.5), words: "x")
    call(:post, "/shots/#{shot.id}/versions", {name: "Colder"})
    expect([last_response.status, json.dig("shot", "recipe", "name"), json["shot"]["versions"].map { |one| one["name"] }]).to eq([201, "Colder", ["First light", "Colder"]])
    expect(json.dig("shot", "recipe", "document")).to eq(shot.recipe.reload.document)
    call(:put, "/recipes/#{json.dig("shot", "recipe", "id")}", {revision: 0, document: Studio.balance(temperature: -20), words: "colder"})
    call(:get, "/cuts/#{cut.id}")
    expect(json["shots"][0]["recipe"]["document"]["steps"][0]["parameters"]["temperature"]).to eq(-20)
    call(:patch, "/shots/#{shot.id}", {recipe: shot.recipes.first.id})
    expect(json.dig("shot", "recipe", "document", "steps", 0, "parameters", "exposure")).to eq(0.5)
    expect(json["project"]["undo"]).to eq("#{shot.name}: version First light")
    call(:post, "/projects/#{cut.project.id}/undo")
    expect([json["recipes"], json["beyond"], Server::Shot.find(shot.id).recipe.name]).to eq([[], true, "Colder"])
    call(:post, "/shots/#{shot.id}/versions", {name: "Colder"})
    expect([last_response.status, json["path"]]).to eq([422, "name"])
    call(:patch, "/shots/#{shot.id}", {recipe: cut.loaded_shots.last.recipe.id})
    expect([last_response.status, json["path"]]).to eq([422, "recipe"])
  end

  it "tells what was done in words, and goes back and on to any point" do
    cut = Studio.cut(@folder)
    recipe = cut.loaded_shots.first.recipe
    [0.1, 0.2, 0.3].each_with_index { |exposure, n| recipe.accept(revision: n, document: Studio.balance(exposure:), words: "exposure #{exposure}") }
    path = "/projects/#{cut.project.id}/history"
    call(:get, path)
    ids = json["changes"].map { |change| change["id"] }
    expect([json["changes"].map { |change| change["words"] }, json["at"]]).to eq([["exposure 0.1", "exposure 0.2", "exposure 0.3"], ids.last])
    exposure = -> { recipe.reload.document["steps"].dig(0, "parameters", "exposure") }
    call(:post, path, {change: ids.first})
    expect([exposure.call, json["recipes"].size]).to eq([0.1, 1])
    call(:post, path, {change: ids.last})
    expect(exposure.call).to eq(0.3)
    call(:post, path, {change: nil})
    expect(exposure.call).to be_nil
    call(:get, path)
    expect([json["at"], json["changes"].size]).to eq([nil, 3])
    call(:post, path, {change: 999})
    expect([last_response.status, json["path"]]).to eq([422, "change"])
  end
end
