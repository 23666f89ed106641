# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "the Assembly room", type: :request do
  let(:folder) { Dir.mktmpdir("media") }
  let!(:cut) { Studio.cut(folder) }
  let(:one) { cut.shots.first }
  let(:two) { cut.shots.last }

  after { FileUtils.rm_rf(folder) }

  def hand(operation, **values)
    call(:post, "/cuts/#{cut.id}/assembly", {operation:, **values})
    json
  end

  def places = call(:get, "/cuts/#{cut.id}").then { json["shots"].map { |shot| shot.values_at("name", "source_in", "record_in", "length", "dissolve") } }

  def pixels(frame)
    wish = Server::Pictures::Wish.new(cut: Server::Cut.find(cut.id), frame:, screen: Server::Screens.of(cut.project, nil))
    Server::Pictures::Desk.current.picture(wish).first.rgb
  end

  def step(*keys) = {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {}, "keys" => keys.map { |frame, stops| {"frame" => frame, "parameters" => {"exposure" => stops}} }}]}

  it "splits, trims, rolls, slips, moves and deletes, each one undo away" do
    hand("split", frame: 4)
    expect(places).to eq([["one", 0, 0, 4, 0], ["one.2", 4, 4, 4, 0], ["two", 2, 8, 6, 2]])
    fresh = json["shots"][1]["id"]
    hand("trim", shot: fresh, head: 1, tail: -1)
    expect(json["places"].map { |place| place.values_at("source_in", "length") }).to eq([[0, 4], [5, 4], [2, 6]])
    hand("roll", shot: fresh, by: -1)
    hand("slip", shot: two.id, by: 3)
    hand("move", shots: [two.id], before: one.id)
    expect(places).to eq([["two", 5, 0, 6, 0], ["one", 0, 6, 3, 0], ["one.2", 4, 9, 5, 0]])
    hand("delete", shots: [one.id])
    hand("length", shot: two.id, length: 3)
    expect(places).to eq([["two", 5, 0, 3, 0], ["one.2", 4, 3, 5, 0]])
    said = Server::Change.where(project: cut.project).order(:id).last(7).map(&:words)
    expect(said).to include("one.2 trimmed by 1 and -1 frames", "edit before one.2 moved by -1 frame", "two slipped by 3 frames", "two 3 frames long")
    7.times { call(:post, "/projects/#{cut.project_id}/undo") }
    expect(places).to eq([["one", 0, 0, 8, 0], ["two", 2, 8, 6, 2]])
    7.times { call(:post, "/projects/#{cut.project_id}/redo") }
    expect(places).to eq([["two", 5, 0, 3, 0], ["one.2", 4, 3, 5, 0]])
  end

  it "refuses what cannot be, in words, and changes nothing" do
    before = places
    {"trim" => {shot: one.id, tail: 8}, "roll" => {shot: one.id, by: 1}, "transition" => {shot: two.id, length: 7}, "join" => {shot: one.id}, "delete" => {shots: [one.id, two.id]}, "split" => {frame: 0}, "slip" => {shot: two.id, by: 99}, "speed" => {shot: two.id, speed: "fast"},
     "turn" => {}, "move" => {shots: [one.id], before: one.id}, "insert" => {clip: 0}}.each do |operation, values|
      hand(operation, **values)
      expect([422, 404]).to include(last_response.status), operation
      expect(json["error"]).not_to be_empty
    end
    expect(places).to eq(before)
    hand("trim", shot: one.id, tail: 1, edition: 7)
    expect([last_response.status, json["stale"]]).to eq([409, true])
  end

  it "keeps a grade with its shot, and its keys with their source frames" do
    one.recipe.accept(revision: 0, document: step([0, 0.0], [7, 1.4]), words: "x")
    whole = (0..7).map { |frame| pixels(frame) }
    hand("split", frame: 3)
    hand("trim", shot: one.id, head: 2)
    expect((0..5).map { |frame| pixels(frame) }).to eq(whole[2..7])
    parts = json["places"]
    expect(parts.map { |place| place["clock"] }).to eq([2, 3, 0])
    hand("delete", shots: [parts[1]["id"]])
    call(:get, "/cuts/#{cut.id}/attic")
    expect(json.map { |shot| shot.values_at("name", "steps") }).to eq([["one.2", 1]])
    3.times { call(:post, "/projects/#{cut.project_id}/undo") }
    call(:get, "/cuts/#{cut.id}/attic")
    expect(json).to eq([]) # of a split that was taken back nothing is left there
    3.times { call(:post, "/projects/#{cut.project_id}/redo") }
    hand("insert", attic: parts[1]["id"])
    expect(pixels(json["length"] - 1)).to eq(whole[7])
    expect(Server::Shot.find(one.id).stand("poster", 0)).to be_truthy
    expect(Server::Shot.find(one.id).poster).to eq(2)
  end

  it "runs shots slower, backwards and not at all, and wipes, the same on the Bench and in a master" do
    hand("transition", shot: two.id, length: 0)
    hand("speed", shot: two.id, speed: 0.5)
    half = (0...6).map { |frame| pixels(8 + frame).to_binary }
    expect(half.each_slice(2).map(&:uniq).map(&:size)).to eq([1, 1, 1])
    hand("slip", shot: two.id, by: 5)
    hand("speed", shot: two.id, speed: -1.0)
    hand("transition", shot: two.id, length: 4, wipe: 1)
    seen = (0...14).map { |frame| pixels(frame) }
    fresh = Server::Cut.find(cut.id)
    made = [].tap { |list| fresh.programme.each(first: 0, count: 14) { |frame, _| list << frame.rgb } }
    expect(made).to eq(seen)
    clip = fresh.shots.last.clip
    expect(fresh.timeline.layers(13).map(&:source_frame)).to eq([2])
    expect(fresh.timeline.layers(9).map { |layer| [layer.source_frame, layer.wipe] }).to eq([[9, Mordant::Cut::Wipe.new(1)], [6, Mordant::Cut::Wipe.new(1)]])
    middle = seen[9].reshape(3, 36, 64)
    alone = ->(number) { clip.reader.frame(number, width: 64, height: 36).then { |codes| fresh.source_of(fresh.shots.last).plan.run(codes).rgb.reshape(3, 36, 64) } }
    expect(middle[true, true, 0...20]).to eq(alone[6][true, true, 0...20])
    expect(middle[true, true, 40...64]).to eq(alone[9][true, true, 40...64])
  end

  it "lays washes over what is left of their stretch" do
    call(:post, "/cuts/#{cut.id}/washes", {name: "W", from: one.id, to: one.id, words: "x"})
    hand("split", frame: 4)
    part = json["places"][1]["id"]
    expect(json["washes"].map { |wash| wash.values_at("from", "to") }).to eq([[one.id, part]])
    hand("delete", shots: [one.id])
    expect(json["washes"].map { |wash| wash.values_at("from", "to") }).to eq([[part, part]])
    hand("delete", shots: [part])
    expect(json["washes"]).to eq([])
    2.times { call(:post, "/projects/#{cut.project_id}/undo") }
    call(:get, "/cuts/#{cut.id}")
    expect(json["washes"].map { |wash| wash.values_at("from", "to") }).to eq([[one.id, part]])
  end

  it "puts clips in, makes shots black and links a shot by hand" do
    clip = two.clip
    hand("insert", clip: clip.id, source_in: 2, length: 3, before: two.id)
    expect(places[1]).to eq(["two", 2, 8, 3, 0])
    fresh = json["shots"][1]["id"]
    hand("delete", shots: [one.id], black: true)
    expect(places.first).to eq(["black", 0, 0, 8, 0])
    expect(pixels(3).max).to be < 0.08
    hand("link", shot: fresh, clip: one.clip_id, source_in: 1)
    expect(json["places"][1].values_at("clip", "source_in", "link")).to eq([one.clip_id, 1, "by hand"])
  end
end
