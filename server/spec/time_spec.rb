# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Change over time", type: :request do
  around { |example| Dir.mktmpdir { |folder| (@folder = File.realpath(folder)) && example.run } }

  let(:cut) { Studio.cut(@folder) }
  let(:shot) { cut.loaded_shots.first }
  let(:span) { {"id" => "s", "name" => "bright", "start" => 3, "finish" => 5, "fade_in" => [2, 0], "fade_out" => [0, 0], "curve" => "straight"} }
  let(:bound) { {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 2.0}, "spans" => ["s"]}], "spans" => [span]} }

  def store(document, of: shot) = Server::Recipe.find(of.recipe.id).then { |recipe| recipe.accept(revision: recipe.revision, document:, words: "x") }

  def fresh = Server::Cut.find(cut.id)

  def seen(frame)
    wish = Server::Pictures::Wish.new(cut: fresh, frame:, screen: Server::Screens.of(cut.project, nil))
    Server::Pictures::Desk.current.picture(wish).first.rgb
  end

  def told = JSON.parse(last_response.body.b[4, last_response.body.unpack1("L<")])

  it "binds a step to a span: pictures, deliveries and kept pictures follow it, and where it is off nothing is done" do
    still = [0.0, 1.0, 2.0].to_h { |stops| [stops, store(Studio.balance(exposure: stops)) && (0...8).map { |frame| seen(frame) }] }
    half = store({"steps" => [Studio.balance(exposure: 2.0)["steps"][0].merge("strength" => 0.5)]}) && seen(2)
    wish = ->(frame) { Server::Pictures::Wish.new(cut: fresh, frame:, screen: Server::Screens.of(cut.project, nil)) }
    names = -> { (0...8).map { |frame| Server::Pictures::Kept.current.send(:name, wish[frame]) } }
    store(bound)
    expect([0, 1, 6, 7].map { |frame| seen(frame) }).to eq([0, 1, 6, 7].map { |frame| still[0.0][frame] })
    expect([3, 4, 5].map { |frame| seen(frame) }).to eq([3, 4, 5].map { |frame| still[2.0][frame] })
    expect(seen(2)).to eq(half)
    delivered = [].tap { |list| fresh.programme.each(first: 0, count: 8) { |frame, _| list << frame.rgb } }
    expect(delivered).to eq((0...8).map { |frame| seen(frame) })
    before = names.call
    store(bound.merge("spans" => [span.merge("finish" => 6)]))
    expect(names.call).not_to eq(before)
    expect(fresh.source_of(fresh.loaded_shots.first).plan.recipe.stretches(0...8)).to eq([[0...2, false], [2...3, true], [3...7, false], [7...8, false]])
  end

  it "tells how far in a step is, what its parameters are, and how one goes over the shot" do
    keyed = {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"contrast" => 1.1}, "spans" => ["s"], "keys" => {"exposure" => [{"frame" => 0, "value" => 0.0, "ease" => "smooth"}, {"frame" => 4, "value" => 1.0}]}}], "spans" => [span]}
    ask = ->(course) { call(:post, "/cuts/#{cut.id}/picture", {frame: 2, trial: [{recipe: shot.recipe.id, document: keyed}], course:}) && told }
    found = ask[{step: "a", parameter: "exposure"}]
    expect([found["spanned"], found["moved"]["a"].values_at("exposure", "contrast")]).to eq([{"a" => 0.5}, [0.5, 1.1]])
    expect(found["course"]).to include("step" => "a", "parameter" => "exposure", "frames" => (0..7).to_a, "values" => [[0.0], [0.15625], [0.5], [0.84375], *[[1.0]] * 4])
    expect(ask[{step: "a", parameter: "contrast"}]).not_to have_key("course")
    expect(ask[nil]).not_to have_key("course")
  end

  it "stays with its source frames when a shot is trimmed, split and cut otherwise by a list" do
    store(bound)
    strengths = lambda do
      fresh.loaded_shots.select { |one| one.clip_id == shot.clip_id }.flat_map { |one| fresh.source_of(one).then { |source| (0...one.length).map { |frame| [one.source_in + frame, source.plan_at(frame).recipe.entries.first.strength] } } }
    end
    whole = strengths.call
    expect(whole).to eq([[0, 0.0], [1, 0.0], [2, 0.5], [3, 1.0], [4, 1.0], [5, 1.0], [6, 0.0], [7, 0.0]])
    hand = ->(operation, **values) { call(:post, "/cuts/#{cut.id}/assembly", {operation:, **values}) }
    hand["trim", shot: shot.id, head: 2]
    expect(strengths.call).to eq(whole.drop(2))
    hand["split", frame: 2]
    expect(strengths.call).to eq(whole.drop(2))
    list = "TITLE: again\n001  AX V C 00:00:00:04 00:00:00:07 01:00:00:00 01:00:00:03\n* FROM CLIP NAME: one.mkv\n"
    call(:put, "/cuts/#{cut.id}/recut", {list: {name: "again.edl", text: list}, links: {"1" => shot.clip_id}})
    expect(last_response.status).to eq(200)
    expect(strengths.call).to eq(whole[4..6])
  end

  it "counts a wash's keys and spans from its own first frame" do
    call(:post, "/cuts/#{cut.id}/washes", {name: "Dusk", words: "x"})
    wash = Server::Wash.find(json["wash"]["id"])
    wash.recipe.accept(revision: 0, document: bound.merge("spans" => [span.merge("start" => 6, "finish" => 11)]), words: "x")
    strengths = fresh.loaded_shots.map { |one| fresh.source_of(one).then { |source| (0...one.length).map { |frame| source.plan_at(frame).recipe.entries.last.strength } } }
    expect(strengths).to eq([[0, 0, 0, 0, 0, 0.5, 1, 1], [1, 1, 1, 1, 0, 0]])
  end

  it "brings the spans that copied steps name, once, with ids of their own" do
    store(bound)
    other = cut.loaded_shots.last
    paste = -> { call(:post, "/cuts/#{cut.id}/paste", {shots: [other.id], steps: bound["steps"], spans: [span, span.merge("id" => "t")], words: "x"}) && json["recipes"][0]["document"] }
    made = paste.call
    expect(made["spans"].map { |one| one.except("id") }).to eq([span.except("id")])
    expect(made["steps"][0]["spans"]).to eq([made["spans"][0]["id"]])
    expect(made["spans"][0]["id"]).not_to eq("s")
    again = paste.call
    expect([again["spans"].size, again["steps"].map { |step| step["spans"] }.uniq.size]).to eq([1, 1])
    call(:post, "/cuts/#{cut.id}/paste", {shots: [other.id], steps: bound["steps"], words: "x"})
    expect([last_response.status, json["error"]]).to match([422, /spans/])
  end

  it "keeps spans in swatches and their files" do
    store(bound)
    swatch = Server::Swatch.keep(fresh.loaded_shots.first, frame: 3)
    expect(swatch.document["spans"]).to eq([span])
    again = Server::Swatch.bring_in(swatch.packed)
    expect(again.document).to eq(swatch.document)
  end

  it "takes a table or a CDL of what moves at one frame, and says which" do
    store(bound)
    call(:get, "/shots/#{shot.id}/bake?size=17&frame=2")
    expect([json["left_out"], json["taken"]]).to eq([[], "as at frame 3, 01:00:00:02"])
    call(:get, "/shots/#{shot.id}/look.cube?size=17&frame=4")
    full = last_response.body
    expect(full).to match(/TITLE ".*, as at frame 5, 01:00:00:04"/)
    store(Studio.balance(exposure: 2.0))
    call(:get, "/shots/#{shot.id}/look.cube?size=17")
    expect(last_response.body.lines.drop(1)).to eq(full.lines.drop(1))
    call(:get, "/shots/#{shot.id}/bake?size=17")
    expect(json["taken"]).to be_nil
    store(bound)
    call(:get, "/shots/#{shot.id}/bake?size=17&frame=9")
    expect([last_response.status, json["error"]]).to match([422, /frame of shot one/])
    call(:get, "/shots/#{shot.id}/correction?frame=4")
    expect([json["taken"], json["left_out"]]).to eq(["as at frame 5, 01:00:00:04", []])
  end

  it "reads productions that were made with keys of whole steps to the same pictures, their history and swatches too" do
    keys = [[0, 0.0], [7, 1.4]].map { |frame, stops| {"frame" => frame, "parameters" => {"exposure" => stops, "contrast" => 1.2}} }
    earlier = {"steps" => [{"id" => "a", "kind" => "balance", "name" => "B", "enabled" => true, "strength" => 1.0, "parameters" => {"exposure" => 0.0}, "keys" => keys,
                            "matte" => {"contributors" => [{"id" => "e", "kind" => "ellipse", "parameters" => {}, "keys" => [[0, 0.1], [7, 0.4]].map { |frame, radius| {"frame" => frame, "parameters" => {"radii" => [radius, radius]}} }}]}}]}
    store(bound)
    shot.recipe.update_columns(document: earlier)
    Server::Revision.update_all(["after = ?::jsonb", {document: earlier}.to_json])
    Server::Swatch.connection.execute("INSERT INTO swatches (name, description, folder, origin, encoding, document, created_at, updated_at) VALUES ('s', '', '', '{}', 'rec709-bt1886', '#{earlier.to_json}', now(), now())")
    before = (0...8).map { |frame| seen(frame).to_binary }
    require File.join(Server::ROOT, "server/migrations/019_key_parameters") unless defined?(KeyParameters)
    ActiveRecord::Migration.suppress_messages { KeyParameters.new.up }
    after = Server::Recipe.find(shot.recipe.id).document
    expect(after["steps"][0]["keys"].keys).to eq(["exposure"])
    expect(after["steps"][0]["parameters"]["contrast"]).to eq(1.2)
    expect(after.dig("steps", 0, "matte", "contributors", 0, "keys").keys).to eq(["radii"])
    expect((0...8).map { |frame| seen(frame).to_binary }).to eq(before)
    expect([Server::Revision.last.after["document"], Server::Swatch.last.document]).to eq([after, after])
  end
end
