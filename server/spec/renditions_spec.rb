# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Renditions", type: :request do
  let(:footage) { :steps }
  let(:cut) { Studio.cut(@folder, footage:) }
  let(:one) { cut.loaded_shots.first }
  let(:hdr) { {"id" => "hdr", "name" => "HDR", "encoding" => "rec2100-pq", "rendering" => "hdr-video-1000nit-15nit-p3lim-1.1"} }
  let(:sdr) { {"id" => "sdr", "name" => "BT.709 100", "encoding" => "rec709-bt1886", "rendition" => {"peak" => 100, "black" => 0}} }
  let(:mid) { {"id" => "mid", "name" => "P3-D65 600", "encoding" => "rec2100-pq", "limit" => "p3-d65", "rendition" => {"peak" => 600, "black" => 0}} }

  before { cut.project.update!(targets: Server::Target.list([hdr, sdr, mid]).map(&:document)) }

  def fresh = Server::Cut.find(cut.id)

  def bright(by = 2.0) = store(one.recipe, Studio.balance(exposure: by))

  def store(recipe, document) = Server::Recipe.find(recipe.id).then { |row| row.accept(revision: row.revision, document:, words: "x") }

  def measure(**body)
    call(:post, "/cuts/#{cut.id}/measurements", body)
    raise last_response.body unless last_response.status == 202
    work_off
    raise Server::Errand.last.message if Server::Errand.last.status == "failed"
    call(:get, "/cuts/#{cut.id}/renditions")
    json["shots"]
  end

  def correct(shot, *steps)
    call(:post, "/shots/#{shot.id}/corrections")
    recipe = json["recipe"]
    call(:put, "/recipes/#{recipe["id"]}", {revision: recipe["revision"], document: {"steps" => steps}, words: "corrected"})
    json
  end

  def for_all(**values) = {"id" => "all", "kind" => "rendition_all", "parameters" => values.transform_keys(&:to_s)}

  def for_target(id, **values) = {"id" => id, "kind" => "rendition", "parameters" => values.transform_keys(&:to_s)}

  def seen(target, frame, **more) = Server::Pictures::Desk.current.picture(wish(target, frame, **more))[1].rgb

  def wish(target, frame, **more) = Server::Pictures::Wish.new(cut: fresh, frame:, screen: Server::Screens.of(fresh.project, {"target" => target}), **more)

  # Light that grey of a code is in the HDR picture, cd/m2.
  def light(code, stops) = Mordant::Colour::Conversion.new(from: "acescct", to: "rec2100-pq", rendering: hdr["rendering"]).chain
    .exact(Numo::DFloat.ones(3, 1) * Mordant::Colour::Transfer::Acescct.encode(Mordant::Colour::Transfer::Acescct.decode(Numo::DFloat[code / 65_535.0]) * 2**stops)[0]).then { |codes| Mordant::Colour::Transfer::PQ.decode(codes)[0, 0] * 100 }

  # ITU-R BT.2390, 5.4.1, of a grey, to codes of gamma 2.4 of a screen of 100 cd/m2.
  def mapped(nits, least, greatest)
    pq = ->(light) { Mordant::Colour::Transfer::PQ.encode(Numo::DFloat[light / 100.0])[0] }
    low, high = pq[least], pq[greatest]
    share, peak = [nits, 100.0].map { |light| (pq[light] - low) / (high - low) }
    knee = 1.5 * peak - 0.5
    t = (share - knee) / (1 - knee)
    share = (2 * t**3 - 3 * t**2 + 1) * knee + (t**3 - 2 * t**2 + t) * (1 - knee) + (3 * t**2 - 2 * t**3) * peak if share > knee
    Mordant::Colour::Transfer::PQ.decode(Numo::DFloat[share * (high - low) + low])[0]**(1 / 2.4)
  end

  it "measures shots of the HDR picture, frame by frame, and says exactly which are out of date" do
    bright
    expect(measure.map { |shot| shot["state"] }).to eq(%w[measured measured])
    told = json["shots"][0]
    expect(told["greatest"]).to be_within(0.01 * told["greatest"]).of(light(Footage.code(6), 2.0))
    expect(told["least"]).to be_within(0.01 * told["least"]).of(light(Footage.code(0), 2.0))
    expect(told["course"].map(&:last)).to eq(told["course"].map(&:last).sort)
    expect(told.slice("every", "active")).to eq("every" => 2, "active" => nil)
    expect(json["targets"].map { |target| target["id"] }).to eq(%w[sdr mid])
    bright(2.1)
    call(:get, "/cuts/#{cut.id}/renditions")
    expect(json["shots"].map { |shot| shot["state"] }).to eq(%w[stale measured])
    bright(2.0)
    call(:get, "/cuts/#{cut.id}/renditions")
    expect(json["shots"].map { |shot| shot["state"] }).to eq(%w[measured measured])
    call(:post, "/cuts/#{cut.id}/measurements", {})
    expect(json["count"]).to eq(1) # nothing is left to do
  end

  it "samples what no table can hold" do
    store(one.recipe, {"steps" => [{"id" => "b", "kind" => "soften", "parameters" => {"luma" => 0.8}}]})
    expect(measure(shots: [one.id])[0]).to include("state" => "measured", "every" => 2)
  end

  it "maps by what was measured, and leaves what fits as it is, bit for bit" do
    bright(5.0)
    measure
    expect(seen("sdr", 7).max).to be_between(0.97, 1.0)
    expect(seen("sdr", 5).mean).to be_within(1e-3).of(mapped(light(Footage.code(5), 5.0), *json["shots"][0].values_at("least", "greatest")))
    dark = seen("mid", 12) # the other shot, of less than 600 cd/m2
    expect(dark).to eq(seen("hdr", 12))
    expect(seen("hdr", 7)).to eq(Server::Pictures::Desk.current.picture(wish(nil, 7))[1].rgb)
  end

  it "waits with corrections for a target until a shot is measured, and takes those back as everything is" do
    answer = correct(one, for_target("sdr", contrast: 1.2))
    expect([last_response.status, answer["path"], answer["error"]]).to match([422, "shot one", /levels that are measured/])
    expect(correct(one, for_all(brightness: 0.2))["recipe"]["document"]["steps"].size).to eq(1)
    bright
    measure
    before = seen("sdr", 5)
    correct(one, for_target("sdr", contrast: 1.4, tone: [0.0, 0.05, 0.0]))
    expect(seen("sdr", 5)).not_to eq(before)
    call(:post, "/projects/#{cut.project_id}/undo")
    expect(seen("sdr", 5)).to eq(before)
    answer = correct(one, Studio.balance["steps"][0])
    expect([last_response.status, answer["error"]]).to match([422, /rendition_all, rendition/])
    call(:put, "/recipes/#{one.recipe.id}", {revision: Server::Recipe.find(one.recipe.id).revision, document: {"steps" => [for_all]}, words: "x"})
    expect([last_response.status, json["path"]]).to eq([422, "steps[0].kind"])
  end

  it "goes between corrected targets by the logarithm of their peaks, and by keys" do
    bright(3.0)
    measure
    correct(one, for_target("sdr", colour: 0.5).merge("keys" => {"colour" => [{"frame" => 0, "value" => 1.0}, {"frame" => 4, "value" => 0.5}]}))
    amounts = [0, 2, 4].map { |frame| wish("mid", frame).screen.view.mappings.last.one.colour }
    share = 1 - Math.log2(600 / 100.0) / Math.log2(1000 / 100.0)
    expect(amounts).to match([be_within(1e-9).of(1.0), be_within(1e-9).of(1 - 0.25 * share), be_within(1e-9).of(1 - 0.5 * share)])
  end

  it "is dragged from the exact picture before it, whatever that is made of" do
    store(one.recipe, {"steps" => [*Studio.balance(exposure: 3.0)["steps"], {"id" => "b", "kind" => "soften", "parameters" => {"luma" => 0.8}}]})
    measure
    call(:post, "/shots/#{one.id}/corrections")
    recipe = json["recipe"]
    at = ->(contrast) { wish("sdr", 3, trial: {recipe["id"] => Mordant::Rendition.recipe("steps" => [for_target("sdr", contrast:)])}) }

    rest = Server::Pictures::Ladders.new(Server::Pictures::Desk.current, at[1.0], {"step" => nil}).prepared
    told = rest.header.slice(:start, :domain).transform_keys(&:to_s)
    moved = Server::Pictures::Ladders.new(Server::Pictures::Desk.current, at[1.4], {"step" => nil, **told}).moved
    expect([rest, moved].map { |answer| answer.header[:rungs].size }).to eq([1, 1])
    expect(moved.header[:start]).to eq(rest.header[:start])
    expect(moved.header[:rungs][0][0][:lattice]).not_to eq(rest.header[:rungs][0][0][:lattice])
  end

  it "mixes both shots' renditions in a transition, and delivers what is seen" do
    bright(3.0)
    measure
    correct(one, for_target("sdr", detail: 0.5, tone: [0.0, -0.05, 0.0]))
    sheet = {"format" => "png-16", "target" => "sdr", "dither" => false, "name" => "{project}/sdr"}
    FileUtils.rm_rf(Server::Settings.delivery)
    FileUtils.mkdir_p(Server::Settings.delivery)
    call(:post, "/cuts/#{cut.id}/orders", {outputs: [sheet], template: "x"})
    raise last_response.body unless last_response.status == 201
    work_off
    expect(Server::Output.first.message).to be_nil
    files = Dir[File.join(Server::Settings.delivery, "Trial/sdr/*.png")].sort
    [3, 8, 9, 12].each do |frame|
      written = Vips::Image.new_from_file(files[frame]).getpoint(9, 9).map { |code| code / 65_535.0 }
      expect(written).to match(seen("sdr", frame).reshape(3, 36, 64)[true, 9, 9].to_a.map { |code| be_within(2e-5).of(code) }), "frame #{frame}"
    end
    shown = wish("sdr", 9).screen.view
    expect(shown.mappings.size).to eq(2)
  end

  it "copies corrections between shots and targets, and levels only when somebody has been warned" do
    bright
    measure(shots: [one.id])
    two = fresh.loaded_shots.last
    correct(one, for_all(brightness: 0.3), for_target("sdr", colour: 1.2))
    call(:post, "/cuts/#{cut.id}/renditions/paste", {from: one.id, parts: %w[all sdr], shots: [two.id], words: "pasted"})
    expect([last_response.status, json["path"], json["error"]]).to match([422, "shot two", /levels/])
    call(:post, "/cuts/#{cut.id}/levels", {from: one.id, shots: [two.id]})
    expect([last_response.status, json["confirm"], json["error"]]).to match([409, true, /levels of one would stand for two/])
    call(:post, "/cuts/#{cut.id}/levels", {from: one.id, shots: [two.id], confirm: true})
    expect(json["shots"][1]).to include("copied" => "one", "greatest" => json["shots"][0]["greatest"])
    call(:post, "/cuts/#{cut.id}/renditions/paste", {from: one.id, parts: %w[all sdr], shots: [two.id], words: "pasted"})
    expect(json["recipes"][0]["document"]["steps"].map { |step| step["id"] }).to eq(%w[all sdr])
    call(:post, "/cuts/#{cut.id}/renditions/paste", {from: one.id, parts: %w[sdr], as: "mid", shots: [two.id, one.id], words: "pasted"})
    expect(json["recipes"].map { |row| row["document"]["steps"].map { |step| step["id"] }.sort }).to eq([%w[all mid sdr]] * 2)
    copy = one.copy(name: "again")
    expect([copy.statistic, copy.corrections]).to eq([nil, nil])
  end

  it "leaves as JSON and as CSV, and is read back as it was" do
    bright
    measure
    correct(one, for_all(brightness: 0.3), for_target("sdr", colour: 1.2))
    call(:get, "/cuts/#{cut.id}/renditions.json")
    data = json
    expect(data["shots"][0]).to include("shot" => "one", "length" => 8)
    Server::Statistic.delete_all
    Server::Recipe.where.not(corrects_id: nil).update_all(document: {"steps" => []})
    call(:post, "/cuts/#{cut.id}/renditions", {data:})
    expect([last_response.status, json["shots"]]).to eq([200, 2])
    call(:get, "/cuts/#{cut.id}/renditions.json")
    expect(json).to eq(data)
    call(:get, "/cuts/#{cut.id}/renditions.csv")
    rows = CSV.parse(last_response.body, headers: true)
    expect(rows.map { |row| row.to_h.slice("shot", "target") }).to eq(%w[one two].product(["BT.709 100", "P3-D65 600"]).map { |shot, target| {"shot" => shot, "target" => target} })
    expect(rows[0].to_h).to include("colour" => "1.2", "brightness" => "0.3")
    wrong = ->(&change) { Marshal.load(Marshal.dump(data)).tap(&change) }
    {wrong.call { |file| file["version"] = 2 } => "format", wrong.call { |file| file["shots"][1]["record_in"] = 3 } => "shots[1]", wrong.call { |file| file["shots"][0]["statistics"]["course"][1] = [1, 0, 2] } => "shots[0].statistics.course[1]",
     wrong.call { |file| file["shots"][0]["corrections"]["steps"][1]["parameters"]["colour"] = 9 } => "steps[1].parameters.colour", {"format" => "x"} => "format"}.each do |file, path|
      call(:post, "/cuts/#{cut.id}/renditions", {data: file})
      expect([last_response.status, json["path"]]).to eq([422, path])
    end
  end

  it "is shown beyond a shot's ends too, and played" do
    bright
    measure
    beyond = Server::Pictures::Lone.beyond(fresh.loaded_shots.first, 9)
    shown = Server::Pictures::Wish.new(cut: beyond, frame: 9, screen: Server::Screens.of(fresh.project, {"target" => "sdr"}))
    expect(Server::Pictures::Desk.current.picture(shown)[1].rgb.mean).to be > seen("sdr", 7).mean
    ladders = Server::Pictures::PlayedLadders.new(Server::Pictures::Desk.current, wish("sdr", 0).with(frame: nil), nil, 1)
    expect(ladders.of(0...6).map { |one| one[:rungs].nil? }).to eq([false] * 6)
    plain = ladders.of(2...3)[0][:rungs][0][0][:lattice]
    correct(one, for_all(levels: "following", brightness: 0.2))
    moved = Server::Pictures::PlayedLadders.new(Server::Pictures::Desk.current, wish("sdr", 0).with(frame: nil), nil, 1)
    expect(moved.of(2...3)[0][:rungs][0][0][:lattice]).not_to eq(plain)
  end

  it "is known again of frames that were made ahead, also where its corrections move" do
    bright
    measure
    correct(one, for_target("sdr", colour: 0.5).merge("keys" => {"colour" => [{"frame" => 0, "value" => 1.0}, {"frame" => 4, "value" => 0.5}]}))
    kept = Server::Pictures::Kept.current
    found = -> { kept.frames(wish("sdr", nil), 0...14) }
    made = [1, 2, 8, 12] # 8 is in the transition, 12 in the shot that stands still
    made.each { |frame| kept.fetch(wish("sdr", frame)) }
    expect([found.call, kept.frames(wish("mid", nil), 0...14)]).to eq([made, []])
    correct(one, for_target("sdr", colour: 0.5).merge("keys" => {"colour" => [{"frame" => 0, "value" => 1.0}, {"frame" => 2, "value" => 0.5}]}))
    expect(found.call).to eq([8, 12]) # after both second keys it is what it was
  end

  it "goes into tables of single shots, where one can hold it" do
    bright(5.0)
    measure
    call(:get, "/shots/#{one.id}/look.cube?target=sdr&size=33")
    cube = Mordant::Lut::Cube.read(File.join(@folder, "one.cube").tap { |path| File.write(path, last_response.body) })
    expect(Mordant::Pointwise::Chain.new(cube.operations).exact(Numo::DFloat.new(3, 1).fill(Footage.code(5) / 65_535.0))[1, 0]).to be_within(0.004).of(seen("sdr", 5).mean)
    correct(one, for_target("sdr", detail: 0.4))
    call(:get, "/shots/#{one.id}/look.cube?target=sdr&size=33")
    expect([last_response.status, json["path"]]).to eq([422, "target"])
  end

  it "is written as HDR10 with its own target as the mastering display, and its light is in the data" do
    bright(5.0)
    measure
    FileUtils.rm_rf(Server::Settings.delivery)
    FileUtils.mkdir_p(Server::Settings.delivery)
    call(:post, "/cuts/#{cut.id}/orders", {outputs: [{"format" => "hdr10", "target" => "mid", "width" => 64, "height" => 36, "name" => "{project}/mid"}], template: "x"})
    expect(last_response.status).to eq(201), last_response.body
    work_off
    expect(Server::Output.first).to have_attributes(status: "done", message: nil)
    probed = JSON.parse(Mordant::Media::Command.run(["ffprobe", "-v", "error", "-show_frames", "-of", "json", File.join(Server::Settings.delivery, "Trial/mid.mp4")], path: "mid.mp4"))
    mastering = probed["frames"][0]["side_data_list"].find { |one| one["side_data_type"] == "Mastering display metadata" }
    expect(mastering.slice("max_luminance", "green_x")).to eq("max_luminance" => "6000000/10000", "green_x" => "13250/50000")
    call(:get, "/cuts/#{cut.id}/renditions.json")
    told = json["deliveries"][0]
    expect(told.slice("target", "path")).to eq("target" => "mid", "path" => "Trial/mid.mp4")
    expect(told["max_cll"]).to be_within(0.05 * told["max_cll"]).of(measured_light(cut, "mid"))
  end

  # The brightest of red, green and blue in all frames of a rendition, cd/m2.
  def measured_light(cut, target) = (0...14).map { |frame| Mordant::Colour::Transfer::PQ.decode(Numo::DFloat[seen(target, frame).max])[0] * 100 }.max

  it "says before it is ordered whose levels are not known, or old" do
    bright
    measure(shots: [one.id])
    bright(2.5)
    call(:post, "/cuts/#{cut.id}/orders/look", {outputs: [{"format" => "h264", "target" => "sdr", "width" => 64, "height" => 36, "name" => "{cut}"}], template: "x"})
    expect(json[0]["warnings"]).to include(a_string_matching(/\Atwo: not measured/), a_string_matching(/\Aone: changed since/))
  end

  it "takes targets by gamut, peak and black alone" do
    told = {"bt709 100" => ["rec709-bt1886", nil], "bt709 400" => ["rec2100-pq", "bt709"], "p3-d65 400" => ["rec2100-pq", "p3-d65"], "bt2020 400" => ["rec2100-pq", nil]}
    targets = told.keys.map { |name| name.split.then { |gamut, peak| {"id" => name, "name" => name, "rendition" => {"peak" => peak.to_i, "black" => 0.01, "gamut" => gamut}} } }
    call(:put, "/projects/#{cut.project_id}/settings", {targets: [hdr, *targets]})
    expect(json["targets"].drop(1).to_h { |target| [target["name"], target.values_at("encoding", "limit")] }).to eq(told)
    call(:put, "/projects/#{cut.project_id}/settings", {targets: [hdr, targets[0].merge("rendition" => {"peak" => 100, "gamut" => "x"})]})
    expect([last_response.status, json["path"]]).to eq([422, "targets[1].rendition.gamut"])
  end

  it "refuses targets that are none" do
    {[hdr.merge("encoding" => "rec709-bt1886", "rendering" => "sdr-video-1.0"), sdr] => "targets[1].rendition", [sdr, hdr] => "targets[0]", [hdr, sdr.merge("rendition" => {"peak" => 5})] => "targets[1].rendition.peak", [hdr, sdr.merge("rendition" => {"peak" => 100, "black" => 60})] => "targets[1].rendition.black",
     [hdr, sdr.merge("rendering" => "sdr-video-1.0")] => "targets[1].rendition", [hdr, sdr.merge("encoding" => "acescct")] => "targets[1].rendition"}.each do |targets, path|
      call(:put, "/projects/#{cut.project_id}/settings", {targets:})
      expect([last_response.status, json["path"]]).to eq([422, path]), targets.inspect
    end
    cut.project.update!(targets: [hdr.merge("encoding" => "rec709-bt1886", "rendering" => "sdr-video-1.0")])
    call(:post, "/cuts/#{cut.id}/measurements", {})
    expect([last_response.status, json["path"]]).to eq([422, "targets"])
  end
end
