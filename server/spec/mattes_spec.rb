# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Mattes from elsewhere", type: :request do
  let(:cut) { Studio.cut(@folder) }
  let(:shots) { cut.loaded_shots }
  let(:space) { Mordant::Colour::WorkingSpace.default }

  def matte(*parts, refinements: []) = {"contributors" => parts.each_with_index.map { |one, index| {"id" => index.to_s, **one} }, "refinements" => refinements}

  def step(id, *parts, name: id, **more) = {"id" => id, "kind" => "balance", "name" => name, "parameters" => {"exposure" => 1.0}, "matte" => matte(*parts, **more)}

  def link(shot, step, **parameters) = {"kind" => "linked", "parameters" => {"shot" => shot && shot.id.to_s, "step" => step, **parameters.transform_keys(&:to_s)}.compact}

  # What is brighter than frame n of the footage.
  def from_frame(number)
    tone = (((40 * number + 80) / 1023.0) - space.black) / (space.white - space.black)
    {"kind" => "key", "parameters" => {"lightness_low" => tone, "lightness_soft" => [0.0, 0.0]}}
  end

  def put(shot, *steps)
    recipe = shot.recipe.reload
    call(:put, "/recipes/#{recipe.id}", {revision: recipe.revision, document: {"steps" => steps}, words: "x"})
    last_response.status
  end

  # How many codes a frame is brighter than its source.
  def raised(record, **more)
    made = Server::Cut.find(cut.id)
    wish = Server::Pictures::Wish.new(cut: made, frame: record, screen: Server::Screens.of(made.project, nil), **more)
    rgb = Server::Pictures::Desk.new.picture(wish).first.rgb
    source = Server::Pictures::Desk.new.picture(wish.with(source: true)).first.rgb
    (rgb - source).mean.round(3)
  end

  it "are linked to another shot frame by frame or held, and follow at once when they change there" do
    expect(put(shots[0], step("sky", from_frame(4), name: "Sky"))).to eq(200)
    expect(put(shots[1], step("mine", link(shots[0], "sky")))).to eq(200)
    stop = space.code_at(1.0) - space.code_at(0.0)
    expect((10..13).map { |record| raised(record) }).to match([0.0, 0.0, be_within(0.002).of(stop), be_within(0.002).of(stop)])
    revision = Server::Cut.find(cut.id).loaded_shots[1].revision
    put(shots[0], step("sky", from_frame(3), name: "Sky"))
    expect((10..13).map { |record| raised(record) }).to match([0.0, *[be_within(0.002).of(stop)] * 3])
    expect(Server::Cut.find(cut.id).loaded_shots[1].revision).not_to eq(revision)
    expect(raised(12, passing: true)).to be_within(0.002).of(stop)
  end

  it "are delivered as they are seen" do
    put(shots[0], step("sky", from_frame(4)))
    put(shots[1], step("mine", link(shots[0], "sky")))
    made = Server::Cut.find(cut.id)
    frames = []
    made.programme { |shot| shot.delivered(true, 1.0) }.each(first: 10, count: 4) { |frame, _| frames << frame.rgb.mean }
    wish = ->(record) { Server::Pictures::Wish.new(cut: made, frame: record, screen: Server::Screens.of(made.project, nil)) }
    seen = (10..13).map { |record| Server::Pictures::Desk.new.picture(wish[record]).first.rgb.mean }
    frames.zip(seen).each { |a, b| expect(a).to be_within(1e-4).of(b) }
  end

  it "are refused in a circle, with the way, over shots" do
    put(shots[0], step("sky", {"kind" => "ellipse"}, name: "Sky"))
    put(shots[1], step("mine", link(shots[0], "sky"), name: "Mine"))
    expect([put(shots[0], step("sky", link(shots[1], "mine"), name: "Sky")), json["error"]]).to match([422, /links without a circle, found "?(one · Sky → two · Mine → one · Sky|two · Mine → one · Sky → two · Mine)/])
    expect(put(shots[0], step("sky", {"kind" => "ellipse"}, name: "Sky"), step("later", link(shots[1], "mine"), name: "Later"))).to eq(200)
    expect([put(shots[1], step("mine", link(shots[0], "later"), name: "Mine")), json["error"]]).to match([422, /links without a circle/])
  end

  it "are not taken away while something uses them, which says who does" do
    put(shots[0], step("sky", {"kind" => "ellipse"}, name: "Sky"))
    put(shots[1], step("mine", link(shots[0], "sky"), name: "Deeper"))
    expect([put(shots[0]), json["error"]]).to match([422, /matte of Sky.*take it out there first, found "?used by two · Deeper/])
    expect([put(shots[0], {"id" => "sky", "kind" => "balance", "name" => "Sky"}), json["error"]]).to match([422, /used by two · Deeper/])
    expect([put(shots[1]), put(shots[0])]).to eq([200, 200])
  end

  it "stay linked in copies: to the copies of what they came with, else to where that is" do
    put(shots[0], step("sky", {"kind" => "ellipse"}, name: "Sky"), step("mine", link(nil, "sky"), name: "Mine"))
    steps = shots[0].recipe.reload.document["steps"]
    paste = ->(some) { call(:post, "/cuts/#{cut.id}/paste", {shots: [shots[1].id], steps: some, replace: true, from: shots[0].id, words: "x"}) && json["recipes"][0]["document"]["steps"] }
    both = paste[steps]
    expect(both[1].dig("matte", "contributors", 0, "parameters").values_at("shot", "step")).to eq(["", both[0]["id"]])
    alone = paste[[steps[1]]]
    expect(alone[0].dig("matte", "contributors", 0, "parameters").values_at("shot", "step")).to eq([shots[0].id.to_s, "sky"])
  end

  it "are refused where there is no such shot, step, clip or path" do
    {link(nil, "q") => /a step that is there to take the matte from, found "q"/, {"kind" => "linked", "parameters" => {"shot" => "999999", "step" => "a"}} => /a shot of the same cut/,
     {"kind" => "clip", "parameters" => {"clip" => "999999"}} => /a clip that is taken in, found "999999"/,
     {"kind" => "ellipse", "path" => {"id" => 999_999, "from" => 0}} => /a path that has been tracked in this cut, found 999999/}.each do |part, wanted|
      expect([put(shots[0], step("a", part)), json["error"]]).to match([422, wanted])
    end
    expect(shots[0].recipe.reload.document["steps"]).to eq([])
  end

  it "come from clips, of a channel, in time with the shot, and say which is gone" do
    clip = shots[1].clip # frame n is a grey of (40 n + 100) / 1023
    put(shots[0], step("a", {"kind" => "clip", "parameters" => {"clip" => clip.id.to_s, "offset" => 2.0}}))
    stop = space.code_at(1.0) - space.code_at(0.0)
    share = ->(number) { (40 * number + 100) / 1023.0 }
    expect(raised(1)).to be_within(0.003).of(stop * share[3])
    expect(raised(3)).to be_within(0.003).of(stop * share[5])
    put(shots[0], step("a", {"kind" => "clip", "invert" => true, "parameters" => {"clip" => clip.id.to_s, "channel" => "green"}}))
    expect(raised(3)).to be_within(0.003).of(stop * (1 - share[3]))
    expect(Server::MatteUses.cuts_of(clip)).to eq(["Cut 1"])
    File.rename(clip.file, "#{clip.file}.away")
    call(:post, "/cuts/#{cut.id}/picture", {frame: 3})
    expect([last_response.status, json["error"]]).to match([422, /two\.mkv/])
  end

  it "are shown as grey, over grey, as outline or tinted, told in numbers, and made by picks" do
    document = {"steps" => [step("sky", {"kind" => "ellipse", "parameters" => {"radii" => [0.3, 0.3], "softness" => 0.0}}, from_frame(9).merge("mode" => "subtract"))]}
    put(shots[0], *document["steps"])
    trial = [{recipe: shots[0].recipe.id, document:}]
    looks = %w[grey veil outline tint].to_h do |look|
      call(:post, "/cuts/#{cut.id}/picture", {frame: 2, trial:, tap: "sky", key: {step: "sky", contributor: "1"}, acts: {step: "sky", look:}, instruments: false})
      header, parts = unpacked
      expect(header).to include("matte" => {"share" => be_within(0.01).of(Math::PI * 0.09 / (64 / 36.0)), "between" => be < 0.2}, "acting" => include("step" => "sky"))
      expect([header["key"]["plane"]["counts"].size, header["key"]["lightness"]["weights"].max]).to eq([48 * 48, 0.0])
      [look, Vips::Image.new_from_buffer(parts["picture"], "")]
    end
    expect([looks["grey"].getpoint(32, 18), looks["grey"].getpoint(2, 2)].map { |one| one.map(&:round) }).to match([[255] * 3, [0] * 3].map { |one| one.map { |value| be_within(1).of(value).or(be_within(300).of(value * 257)) } })
    expect(looks.values.map { |image| image.getpoint(32, 18) }.uniq.size).to be > 2
    call(:post, "/cuts/#{cut.id}/point", {frame: 2, x: 0.5, y: 0.5, acts: {step: "sky", contributor: "1"}})
    expect(json["matte"]).to eq(0.0)
    call(:post, "/shots/#{shots[0].id}/key", {frame: 2, step: "sky", contributor: "1", region: [0.4, 0.4, 0.2, 0.2], act: "fresh", trial:})
    tone = ((180 / 1023.0) - space.black) / (space.white - space.black)
    expect(json["parameters"]).to include("lightness_low" => be_between(tone - 0.04, tone), "lightness_high" => be_between(tone, tone + 0.04), "hue_width" => 360.0)
    call(:post, "/shots/#{shots[0].id}/key", {frame: 2, step: "sky", contributor: "0", region: [0.4, 0.4, 0.2, 0.2]})
    expect([last_response.status, json["error"]]).to match([422, /a key, which takes picks/])
    call(:post, "/cuts/#{cut.id}/picture", {frame: 2, acts: {step: "sky", look: "neon"}})
    expect([last_response.status, json["path"]]).to eq([422, "look"])
  end

  it "are shown of steps up to one, without what comes after it" do
    put(shots[0], {"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 1.0}}, {"id" => "b", "kind" => "balance", "parameters" => {"exposure" => 2.0}})
    stop = space.code_at(1.0) - space.code_at(0.0)
    expect([raised(4), raised(4, upto: "a"), raised(4, upto: "gone")]).to match([3, 1, 3].map { |stops| be_within(0.003).of(stops * stop) })
  end

  # The answer to a picture.
  def unpacked
    body = last_response.body.b
    length = body[0, 4].unpack1("V")
    header = JSON.parse(body[4, length])
    at = 4 + length
    parts = header.fetch("parts").to_h { |part| [part["name"], body[at, part["length"]].tap { at += part["length"] }] }
    [header, parts]
  end
end

RSpec.describe "Tracking", type: :request do
  let(:project) { Server::Project.create!(name: "Moving", width: 192, height: 108) }

  # Bars that go four pixels right and two down a frame over an even grey.
  let(:cut) do
    path = File.join(@folder, "bars.mkv")
    Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-f", "lavfi", "-i", "color=gray:s=192x108:r=24:d=0.5", "-f", "lavfi", "-i", "smptebars=s=40x30:r=24:d=0.5", "-filter_complex",
      "overlay=x='30+4*n':y='20+2*n',format=gbrp", "-c:v", "ffv1", "file:#{path}"], path:, limit: 60)
    clip = Server::Intake::Taking.new(project, Server::MediaRoot.configure(@folder)).call("bars.mkv")
    clip.update!(encoding: "rec709-bt1886", encoding_reason: "assigned by hand")
    made = Server::Cut.create_named!(project, "Cut 1")
    made.add([{clip:, position: 0, source_in: 0, record_in: 0, length: clip.frames}])
    Server::Cut.find(made.id)
  end
  let(:shot) { cut.loaded_shots.first }

  def middle(frame) = [(50 + 4 * frame - 96) / 108.0, (35 + 2 * frame - 54) / 108.0]

  # The bars as they lie at a frame, outside of which is darkened.
  def grade(frame, path: nil)
    contributor = {"id" => "e", "kind" => "ellipse", "mode" => "add", "invert" => true, "parameters" => {"centre" => middle(frame), "radii" => [0.2, 0.15], "softness" => 0.01}, **(path ? {"path" => {"id" => path, "from" => frame}} : {})}
    {"steps" => [{"id" => "a", "kind" => "balance", "name" => "Bars", "parameters" => {"exposure" => -1.0}, "matte" => {"contributors" => [contributor]}}]}
  end

  def accept(document) = shot.recipe.reload.then { |row| row.accept(revision: row.revision, document:, words: "x") }

  def track(**wish)
    call(:post, "/cuts/#{cut.id}/tracks", {shot: shot.id, step: "a", contributor: "e", with: "position", way: "on", frame: 0, **wish})
    return unless last_response.status == 202

    work_off
    Server::Errand.find(json["id"])
  end

  it "follows a shape onwards, backwards and both ways, and carries it" do
    accept(grade(4))
    errand = track(frame: 4, way: "both")
    expect([errand.status, errand.result]).to match(["done", include("lost" => nil, "frames" => 12)])
    call(:get, "/cuts/#{cut.id}/paths")
    path = json.first
    expect(path).to include("first" => 0, "kind" => "position", "shot" => shot.id)
    path["places"].each_with_index { |place, frame| expect(place.zip(middle(frame)).map { |a, b| (a - b).abs }.max).to be < 0.4 / 108 }
    accept(grade(4, path: path["id"]))
    wish = ->(record) { Server::Pictures::Wish.new(cut: Server::Cut.find(cut.id), frame: record, screen: Server::Screens.of(project, nil)) }
    [0, 4, 11].each do |frame|
      desk = Server::Pictures::Desk.new
      weights = desk.acting(wish[frame], step: "a").reshape(108, 192)
      column, row = middle(frame).zip([96, 54]).map { |place, half| (place * 108 + half).round }
      expect([weights[row, column], weights[row, column + 24], weights[row, column - 24]]).to eq([0.0, 1.0, 1.0])
    end
  end

  it "goes on from a place that was put right, in one path, and counts from where the shot's clock does" do
    accept(grade(0))
    first = track(frame: 0).result["path"]
    accept(grade(0, path: first))
    second = track(frame: 6, path: first, by: [4 / 108.0, 0.0]).result["path"]
    call(:get, "/cuts/#{cut.id}/paths")
    before, after = json.to_h { |one| [one["id"], one["places"]] }.values_at(first, second)
    expect([after.first(6) == before.first(6), after[6][0] - before[6][0], after[11][0] - before[11][0]]).to match([true, *[be_within(0.5 / 108).of(4 / 108.0)] * 2])
  end

  it "stops where it is lost, says where and why, and keeps what was found" do
    accept(grade(11))
    file = shot.clip.file
    File.rename(file, "#{file}.away")
    expect([track(frame: 11, way: "back").status, Server::Errand.last.message, Server::Path.count]).to match(["failed", /bars\.mkv/, 0])
    File.rename("#{file}.away", file)
    accept({"steps" => [grade(0)["steps"][0].tap { |step| step["matte"]["contributors"][0]["parameters"]["centre"] = [0.85, 0.4] }]})
    track(frame: 0)
    expect(Server::Errand.last).to have_attributes(status: "failed", message: /something in the picture to hold on to/)
  end

  it "refuses what cannot be followed" do
    accept(grade(0))
    {{step: "q"} => "step", {contributor: "q"} => "contributor", {with: "feeling"} => "with", {way: "up"} => "way", {frame: 99} => "frame", {path: 99} => "path", {by: [1]} => "by", {shot: 99_999} => "shot"}.each do |wish, path|
      track(**wish)
      expect([last_response.status, json["path"]]).to eq([422, path]), wish.inspect
    end
    accept({"steps" => [{"id" => "a", "kind" => "balance", "matte" => {"contributors" => [{"id" => "e", "kind" => "key"}]}}]})
    expect([track(with: "position"), json["error"]]).to match([nil, /a step whose matte has a shape to follow/])
  end
end
