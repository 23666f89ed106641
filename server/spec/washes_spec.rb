# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Washes" do
  include Api

  around { |example| Dir.mktmpdir { |folder| example.run if (@folder = File.realpath(folder)) } }

  let(:cut) { Studio.cut(@folder) }
  let(:shots) { cut.loaded_shots }

  def lay(name: "Warm", from: nil, to: nil, exposure: 1.0)
    call(:post, "/cuts/#{cut.id}/washes", {name:, from:, to:, words: "wash #{name} laid"})
    wash = json["wash"] or return
    call(:put, "/recipes/#{wash["recipe"]["id"]}", {revision: 0, document: Studio.balance("w#{wash["id"]}", exposure:), words: "warmer"})
    wash
  end

  # What a shot's steps are now, in signal order.
  def exposures(shot) = Server::Shot.find(shot.id).grade.entries.map { |entry| entry.step.exposure }

  def change(wash, **values) = call(:patch, "/washes/#{wash["id"]}", {words: "wash changed", **values})

  it "lie over the whole cut or a stretch, after the shots' own steps" do
    shots[0].recipe.accept(revision: 0, document: Studio.balance("own", exposure: 0.25), words: "x")
    lay(exposure: 1.0)
    lay(name: "Last one", from: shots[1].id, to: shots[1].id, exposure: 0.5)
    expect(shots.map { |shot| exposures(shot) }).to eq([[0.25, 1.0], [1.0, 0.5]])
    call(:get, "/cuts/#{cut.id}")
    expect(json["washes"].map { |one| one.values_at("name", "from", "to", "enabled") }).to eq([["Warm", nil, nil, true], ["Last one", shots[1].id, shots[1].id, true]])
    expect(json["shots"][0]["recipe"]["document"]["steps"].size).to eq(1)
  end

  it "change pictures and what files hold, are switched off and taken away, and everything of it is undone" do
    wash = lay
    revisions = Server::Shot.find(shots[0].id).revision
    change(wash, enabled: false)
    expect([exposures(shots[0]), Server::Shot.find(shots[0].id).revision == revisions]).to eq([[], false])
    change(wash, enabled: true, to: shots[0].id, name: "Morning")
    expect(shots.map { |shot| exposures(shot) }).to eq([[1.0], []])
    change(wash, laid: false)
    call(:get, "/cuts/#{cut.id}")
    expect([json["washes"], exposures(shots[0])]).to eq([[], []])
    call(:post, "/projects/#{cut.project_id}/undo")
    expect([json["beyond"], exposures(shots[0])]).to eq([true, [1.0]])
    2.times { call(:post, "/projects/#{cut.project_id}/undo") }
    expect(shots.map { |shot| exposures(shot) }).to eq([[1.0], [1.0]])
    2.times { call(:post, "/projects/#{cut.project_id}/undo") }
    call(:get, "/cuts/#{cut.id}")
    expect(json["washes"]).to be_empty
    call(:post, "/projects/#{cut.project_id}/history", {change: Server::Change.last.id})
    expect(exposures(shots[0])).to be_empty
  end

  it "are refused with the field that is wrong" do
    {{name: ""} => "name", {name: "x" * 61} => "name", {from: 0} => "from", {to: "last"} => "to", {from: shots[1].id, to: shots[0].id} => "to"}.each do |values, path|
      call(:post, "/cuts/#{cut.id}/washes", {name: "W", words: "x", **values})
      expect([last_response.status, json["path"]]).to eq([422, path]), values.inspect
    end
    wash = lay
    {{enabled: 1} => "enabled", {laid: nil} => "laid", {words: ""} => "words"}.each do |values, path|
      change(wash, **values)
      expect([last_response.status, json["path"]]).to eq([422, path]), values.inspect
    end
    expect(Server::Wash.count).to eq(1)
  end

  it "are not changed by a window that saw an older state" do
    wash = lay
    change(wash, enabled: false, seen: wash["seen"])
    expect(last_response.status).to eq(200)
    change(wash, enabled: true, to: shots[0].id, seen: wash["seen"])
    expect([last_response.status, json["stale"], json["error"]]).to match([409, true, /another window has changed enabled/])
    expect(Server::Wash.find(wash["id"])).to have_attributes(enabled: false, to_shot_id: nil)
    change(wash, enabled: true, seen: "x")
    expect([last_response.status, json["path"]]).to eq([422, "seen"])
  end

  it "are tried under the hand, in the picture of every shot they lie over" do
    wash = lay(exposure: 0.0)
    level = lambda do |**body|
      call(:post, "/cuts/#{cut.id}/picture", {frame: 3, **body})
      data = last_response.body.b
      header = JSON.parse(data[4, data.unpack1("L<")])
      header["tone"]["light"].index(1.0)
    end
    expect(level.call(trial: [{recipe: wash["recipe"]["id"], document: Studio.balance(exposure: 2.0)}])).to be > level.call
  end

  it "count as grades where settings ask what they would change" do
    lay(exposure: 1.0)
    call(:put, "/projects/#{cut.project_id}/settings", {working_space: "acescc"})
    expect([last_response.status, json["error"]]).to match([409, /2 shots are graded/])
  end

  it "move once, from their own first frame, across the shots they lie over" do
    wash = lay
    document = {"steps" => [{"id" => "w", "kind" => "balance", "keys" => [{"frame" => 0, "parameters" => {"exposure" => 0}}, {"frame" => 10, "parameters" => {"exposure" => 1}}]}]}
    Server::Wash.find(wash["id"]).recipe.then { |recipe| recipe.accept(revision: recipe.revision, document:, words: "x") }
    fresh = Server::Cut.find(cut.id)
    exposures = ->(index) { fresh.source_of(fresh.loaded_shots[index]).then { |source| (0..5).map { |frame| source.plan_at(frame).recipe.entries.first.step.exposure.round(6) } } }
    expect([exposures[0], exposures[1]]).to eq([[0.0, 0.1, 0.2, 0.3, 0.4, 0.5], [0.8, 0.9, 1.0, 1.0, 1.0, 1.0]])
    change(wash, from: shots[1].id)
    fresh = Server::Cut.find(cut.id)
    expect(exposures[1]).to eq([0.0, 0.1, 0.2, 0.3, 0.4, 0.5])
    call(:post, "/cuts/#{cut.id}/picture", {frame: 11, trial: [{recipe: wash["recipe"]["id"], document:}]})
    header = JSON.parse(last_response.body.b[4, last_response.body.unpack1("L<")])
    expect(header.dig("moved", "w", "exposure")).to be_within(1e-9).of(0.3)
  end

  it "go into what is delivered" do
    lay(exposure: 1.0)
    plan = Server::Cut.find(cut.id).then { |fresh| fresh.source_of(fresh.loaded_shots.first) }.plan
    expect(plan.recipe.entries.map { |entry| entry.step.exposure }).to eq([1.0])
  end
end

RSpec.describe "The history of a project" do
  include Api

  around { |example| Dir.mktmpdir { |folder| example.run if (@folder = File.realpath(folder)) } }

  let(:cut) { Studio.cut(@folder) }
  let(:project) { cut.project }

  it "takes back what was set for the project and what clips are read as, in words" do
    clip = Server::Clip.find_by!(project:)
    before = clip.encoding
    call(:put, "/projects/#{project.id}/settings", {canvas: "2.2", output_range: "full"})
    call(:patch, "/projects/#{project.id}/clips", {clips: [clip.id], encoding: "acescc"})
    call(:get, "/projects/#{project.id}/history")
    expect(json["changes"].map { |one| one["words"] }).to eq(["settings: canvas, output range", "encoding of #{File.basename(clip.path)}"])
    call(:post, "/projects/#{project.id}/undo")
    expect([json["beyond"], clip.reload.encoding, clip.by_hand?]).to eq([true, before, before && clip.encoding_reason == Server::Clip::BY_HAND])
    call(:post, "/projects/#{project.id}/undo")
    expect(project.reload.attributes.values_at("canvas", "output_range")).to eq(%w[2.4 legal])
    2.times { call(:post, "/projects/#{project.id}/redo") }
    expect([project.reload.canvas, clip.reload.encoding]).to eq(["2.2", "acescc"])
  end

  it "lets no window overwrite what another has set" do
    call(:get, "/projects/#{project.id}/settings")
    seen, targets = json["seen"].slice("targets"), json["seen"]["targets"]
    call(:put, "/projects/#{project.id}/settings", {targets: targets.map { |one| one.merge("name" => "Room 1") }, seen:})
    expect(last_response.status).to eq(200)
    call(:put, "/projects/#{project.id}/settings", {targets: targets.map { |one| one.merge("name" => "Room 2") }, seen:})
    expect([last_response.status, json["error"]]).to match([409, /has changed targets meanwhile/])
    expect(project.reload.targets.map { |one| one["name"] }).to eq(["Room 1"])
    call(:put, "/projects/#{project.id}/settings", {canvas: "2.2", seen: {"canvas" => "2.4"}})
    expect(last_response.status).to eq(200)
  end

  it "has no line for a setting that was as it is" do
    call(:put, "/projects/#{project.id}/settings", {canvas: "2.4"})
    expect(Server::Change.where(project:)).to be_empty
  end
end
