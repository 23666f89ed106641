# frozen_string_literal: true

require_relative "spec_helper"
require_relative "../../core/spec/support/programmes"

RSpec.describe "Transitions", type: :request do
  around { |example| Dir.mktmpdir { |folder| (@folder = File.realpath(folder)) && example.run } }

  let(:cut) { Studio.cut(@folder) }
  let(:shots) { cut.loaded_shots }

  def fresh = Server::Cut.find(cut.id)

  def hand(operation, **values) = call(:post, "/cuts/#{cut.id}/assembly", {operation:, **values}) && json

  def seen(frame, of: 0)
    wish = Server::Pictures::Wish.new(cut: fresh, frame:, screen: Server::Screens.of(fresh.project, nil))
    Server::Pictures::Desk.current.picture(wish)[of].rgb
  end

  def delivered(frame) = [].tap { |list| fresh.programme.each(first: frame, count: 1) { |made, _| list << made } }.first

  def alone(shot, source) = fresh.source_of(fresh.shot(shot.id)).then { |made| made.plan.run(made.reader.frame(source, width: 64, height: 36)) }

  it "mixes where the project says, and the same on the Bench and in what is delivered" do
    output = cut.project.output
    outgoing, incoming = alone(shots[0], 8), alone(shots[1], 2)
    third = ->(a, b) { a * (1 - 1 / 3.0) + b * (1 / 3.0) }
    expect(seen(8)).to eq(third[outgoing.rgb, incoming.rgb])
    call(:put, "/projects/#{cut.project_id}/settings", {mixing: "display"})
    shown = third[output.run(outgoing).rgb, output.run(incoming).rgb]
    expect((seen(8, of: 1) - shown).abs.max).to be < 1e-6
    expect((output.run(delivered(8)).rgb - shown).abs.max).to be < 1e-6
    call(:put, "/projects/#{cut.project_id}/settings", {mixing: "linear"})
    expect((delivered(8).rgb - seen(8)).abs.max).to be < 1e-6
    expect((seen(8) - third[outgoing.rgb, incoming.rgb]).abs.max).to be > 1e-3
    call(:put, "/projects/#{cut.project_id}/settings", {mixing: "sum"})
    expect([last_response.status, json["error"]]).to match([422, /log, linear, display/])
    2.times { call(:post, "/projects/#{cut.project_id}/undo") }
    expect(fresh.project.mixing).to eq("log")
  end

  it "goes eased, softly, backwards, or holds the last frame, each one undo away" do
    hand("transition", shot: shots[1].id, length: 4, wipe: 21, manner: {curve: "eased", softness: 0.5, backward: true})
    expect(json["places"][1].slice("dissolve", "wipe", "manner")).to eq("dissolve" => 4, "wipe" => 21, "manner" => {"curve" => "eased", "softness" => 0.5, "backward" => true})
    layer = fresh.timeline.layers(9).last
    expect(layer.share).to be_within(1e-9).of((1 - Math.cos(Math::PI * 0.4)) / 2)
    expect(delivered(9).rgb).to eq(seen(9))
    hand("transition", shot: shots[1].id, length: 5)
    expect([last_response.status, json["error"]]).to match([422, /4 .*handle|handle .*4/])
    hand("transition", shot: shots[1].id, length: 6, manner: {hold: true})
    expect((8..13).map { |frame| fresh.timeline.layers(frame).first.source_frame }).to eq([8, 9, 10, 11, 11, 11])
    expect(delivered(13).rgb).to eq(seen(13))
    hand("transition", shot: shots[1].id, length: 2, manner: {curve: "bouncing"})
    expect([last_response.status, json["error"]]).to match([422, /straight, eased, measured/])
    2.times { call(:post, "/projects/#{cut.project_id}/undo") }
    expect(fresh.shots.last.attributes.slice("dissolve", "wipe", "manner")).to eq("dissolve" => 2, "wipe" => nil, "manner" => {})
  end

  it "says which transitions have lost their handles by another hand" do
    one, two = shots.map(&:id)
    hand("split", frame: 4)
    hand("move", shots: [two], before: json["places"][1]["id"])
    expect(json["notes"]).to eq([])
    hand("transition", shot: two, length: 5)
    expect(json["notes"]).to eq([])
    hand("move", shots: [two])
    expect(json["notes"]).to eq(["two: its transition of 5 frames is 4 long now, as one.2 has no more frames beyond its end"])
    hand("move", shots: [two], before: one)
    expect(json["notes"]).to eq(["two: its transition of 4 frames is a cut now"])
  end

  it "places what an earlier history knows without how transitions went" do
    hand("transition", shot: shots[1].id, length: 4, manner: {curve: "eased"})
    rows = Server::Revision.last.before["assembly"].map { |row| row.first(10) }
    Server::Revision.last.update!(before: {"assembly" => rows})
    call(:post, "/projects/#{cut.project_id}/undo")
    expect(fresh.shots.last.attributes.slice("dissolve", "manner")).to eq("dissolve" => 2, "manner" => {})
  end

  describe "over a flat programme" do
    let(:count) { 10 }
    let(:cut) do
      programme = Programmes.new.add("1A", 26).add("2B", 26, into: count, curve: ->(way) { way**1.5 })
      programme.write(File.join(@folder, "flat.mov"), arguments: %w[-c:v prores_ks -profile:v 3 -pix_fmt yuv422p10le])
      project = Server::Project.create!(name: "Flat", width: 64, height: 36, working_space: "display")
      clip = Server::Intake::Taking.new(project, Server::MediaRoot.configure(@folder)).call("flat.mov").tap { |one| one.update!(encoding: "rec709-bt1886", encoding_reason: "by hand") }
      Server::Cut.create_named!(project, "Cut").tap { |one| one.add([{clip:, position: 0, source_in: 0, record_in: 0, length: clip.frames}]) }.then { |one| Server::Cut.find(one.id) }
    end

    def grade(id, **values) = Server::Recipe.find(fresh.shot(id).recipe.id).then { |recipe| recipe.accept(revision: recipe.revision, document: Studio.balance(**values), words: "x") }

    it "crosses two grades over by the picture's own mix, right way round, and each stays its shot's" do
      hand("cross", first: 16, count:, manner: {curve: "measured"})
      expect(last_response.status).to eq(200)
      first, second = json["places"].map { |place| place["id"] }
      expect(json["places"].map { |place| place.values_at("source_in", "length", "dissolve", "crossover") }).to eq([[0, 16, 0, false], [16, 26, count, true]])
      truth = (1..count).map { |frame| (frame / (count + 1.0))**1.5 }
      shares = json["places"][1]["manner"]["shares"]
      expect(shares.zip(truth).sum { |a, b| (a - b).abs } / count).to be < 0.05
      grade(first, exposure: 1.0)
      grade(second, exposure: -1.0)
      [16, 20, 25].each do |frame|
        one, other = [1.0, -1.0].map { |stops| Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new(Studio.balance(exposure: stops)), source: "rec709-bt1886", space: fresh.project.space).run(fresh.shot(first).clip.reader.frame(frame, width: 64, height: 36)).rgb }
        share = shares[frame - 16]
        expect((delivered(frame).rgb - (one * (1 - share) + other * share)).abs.max).to be < 1e-5
        expect(delivered(frame).rgb).to eq(seen(frame))
      end
      grade(first, exposure: 0.5)
      expect((seen(16) - seen(15)).abs.mean).to be < (seen(26) - seen(15)).abs.mean
      3.times { call(:post, "/projects/#{cut.project_id}/undo") }
      call(:post, "/projects/#{cut.project_id}/undo")
      expect(fresh.shots.map { |shot| [shot.source_in, shot.length, shot.dissolve] }).to eq([[0, 42, 0]])
    end

    it "refuses to measure where there is nothing to measure, and changes nothing" do
      hand("cross", first: 2, count: 8, manner: {curve: "measured"})
      expect([last_response.status, json["error"]]).to match([422, /differ/])
      hand("cross", first: 0, count: 8, manner: {curve: "straight"})
      expect([last_response.status, json["error"]]).to match([422, /stretch/])
      expect(fresh.shots.size).to eq(1)
      hand("cross", first: 16, count:, manner: {curve: "straight"})
      expect(fresh.shots.last.manner).to eq({})
      hand("transition", shot: fresh.shots.last.id, length: 8, manner: {curve: "measured"})
      expect(json["places"][1]["manner"]["shares"].size).to eq(8)
    end
  end
end
