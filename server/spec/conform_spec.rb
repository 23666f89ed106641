# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "lists", type: :request do
  let(:folder) { Dir.mktmpdir("media") }
  let!(:studio) { Studio.cut(folder) } # clips one.mkv and two.mkv, 12 frames each
  let(:project) { studio.project }

  after { FileUtils.rm_rf(folder) }

  def edl(*events)
    record = 24 * 3600
    lines = events.each_with_index.flat_map do |(name, first, length, dissolve), index|
      codes = [first, first + length, record, record + length].map { |frames| Mordant::Cut::Timecode.new(frames, 24r).to_s }
      record += length
      head = format("%03d", index + 1)
      row = ->(reel, change, times) { format("%s  %-8s V     %-8s %s", head, reel, change, times.join(" ")) }
      still = row["AX", "C", [codes[0], codes[0], codes[2], codes[2]]]
      [*(still if dissolve), row["AX", dissolve ? format("D    %03d", dissolve) : "C", codes], *("* FROM CLIP NAME: x" if dissolve), "* #{dissolve ? "TO" : "FROM"} CLIP NAME: #{name}"]
    end
    {name: "trial.edl", text: "TITLE: TRIAL\n#{lines.join("\n")}\n"}
  end

  def conformed(list, name: "From list", **more)
    call(:post, "/projects/#{project.id}/cuts", {name:, list:, **more})
    json
  end

  def places(cut = json) = cut["shots"].map { |shot| shot.values_at("name", "source_in", "record_in", "length", "dissolve", "link") }

  it "says what a list's events are linked to, and makes a cut of it with slates for what is missing" do
    list = edl(["one.mkv", 2, 5], ["two", 1, 6, 3], ["three.mkv", 40, 8])
    call(:post, "/projects/#{project.id}/lists", {list:})
    expect(json["events"].map { |event| event["link"].values_at("name", "rule") }).to eq([["one.mkv", "file name"], ["two.mkv", "clip name"], [nil, nil]])
    expect(json["events"].last["link"]["reason"]).to include("three.mkv")
    expect([Server::Clip.where(status: "missing").count, Server::Cut.count]).to eq([0, 1])
    made = conformed(list)
    expect(places(made)).to eq([["one", 2, 0, 5, 0, "file name"], ["two", 1, 5, 6, 3, "clip name"], ["three.mkv", 40, 11, 8, 0, nil]])
    expect(made["shots"].last["clip"].slice("status", "reason")).to eq("status" => "missing", "reason" => "8 frames from 00:00:01:16")
    call(:get, "/shots/#{made["shots"].last["id"]}/small.png?revision=1")
    expect(last_response.status).to eq(200)
  end

  it "fills slates in when their footage is taken in, and keeps them so through undo" do
    made = conformed(edl(["one.mkv", 2, 5], ["three.mkv", 3, 8]))
    cut = Server::Cut.find(made["id"])
    call(:post, "/cuts/#{cut.id}/assembly", {operation: "trim", shot: made["shots"].last["id"], head: 1})
    Footage.steps(folder, name: "three.mkv")
    intake = Server::Intake.create!(project:, media_root: Server::MediaRoot.first, path: "")
    Server::IntakeJob.new({}).run(intake.id)
    expect(places(call(:get, "/cuts/#{cut.id}").then { json })).to eq([["one", 2, 0, 5, 0, "file name"], ["three", 4, 5, 7, 0, "file name"]])
    call(:post, "/projects/#{project.id}/undo")
    expect(places(call(:get, "/cuts/#{cut.id}").then { json })).to eq([["one", 2, 0, 5, 0, "file name"], ["three", 3, 5, 8, 0, "file name"]])
    expect(json["shots"].last["clip"]["status"]).to eq("ready")
    again = conformed(edl(["three.mkv", 3, 8]), name: "Again")
    expect(places(again)).to eq([["three", 3, 0, 8, 0, "file name"]])
  end

  it "takes a person's word for what a slate is, also for the next list, and refuses clips without its frames" do
    made = conformed(edl(["three.mkv", 3, 8]))
    slate = made["shots"][0]["clip"]["id"]
    call(:put, "/projects/#{project.id}/slates/#{slate}", {clip: Server::Clip.find_by(path: "two.mkv").id, source_in: 9})
    expect([last_response.status, json["error"]]).to match([422, /all the frames.*two, 12 frames/])
    call(:put, "/projects/#{project.id}/slates/#{slate}", {clip: Server::Clip.find_by(path: "two.mkv").id, source_in: 1})
    expect(places(call(:get, "/cuts/#{made["id"]}").then { json })).to eq([["two", 1, 0, 8, 0, "by hand"]])
    expect(places(conformed(edl(["three.mkv", 4, 6]), name: "Again"))).to eq([["two", 2, 0, 6, 0, "by hand"]])
  end

  it "links what several files fit as a person says, or by their folder" do
    FileUtils.mkdir_p(File.join(folder, "b"))
    FileUtils.cp(File.join(folder, "one.mkv"), File.join(folder, "b/one.mkv"))
    other = Server::Intake::Taking.new(project, Server::MediaRoot.first).call("b/one.mkv")
    list = edl(["one.mkv", 2, 5])
    call(:post, "/projects/#{project.id}/lists", {list:})
    expect(json["events"][0]["link"]).to include("clip" => nil, "reason" => "2 files fit by file name", "candidates" => [{"id" => other.id, "path" => "b/one.mkv"}, {"id" => Server::Clip.find_by(path: "one.mkv").id, "path" => "one.mkv"}])
    call(:post, "/projects/#{project.id}/lists", {list:, prefer: "b/"})
    expect(json["events"][0]["link"]).to include("clip" => other.id, "rule" => "from b/")
    call(:post, "/projects/#{project.id}/lists", {list:, links: {"1" => other.id}})
    expect(json["events"][0]["link"]).to include("clip" => other.id, "rule" => "by hand")
  end

  it "compares a new version, lays it over the cut, and each grade follows its frames, one undo away" do
    made = conformed(edl(["one.mkv", 2, 5], ["two.mkv", 1, 6], ["one.mkv", 8, 3], ["two.mkv", 8, 3]))
    cut = Server::Cut.find(made["id"])
    shots = cut.shots.to_a
    shots.each_with_index { |shot, index| shot.recipe.accept(revision: 0, document: Studio.balance("a", exposure: index + 1.0), words: "x") }
    Server::Family.form(cut, name: "F", members: [shots[1]], words: "x")
    # the first trimmed, the second moved to the end, the third gone, one new
    list = edl(["one.mkv", 3, 3], ["one.mkv", 0, 2], ["two.mkv", 8, 3], ["two.mkv", 1, 6])
    call(:post, "/cuts/#{cut.id}/recut", {list:})
    expect(json["differences"].map { |one| one.values_at("kind", "name", "words") }).to eq([["trimmed", "one", "1 frame less at its front, 1 frame less at its end"], ["new", "one.mkv", "new"], ["moved", "two", "moved"], ["kept", "two", "kept"], ["gone", "one", "gone; its grade stays in the attic"]])
    before = places(call(:get, "/cuts/#{cut.id}").then { json })
    call(:put, "/cuts/#{cut.id}/recut", {list:, edition: cut.reload.edition})
    expect(json["places"].map { |place| place.values_at("source_in", "length", "clock") }).to eq([[3, 3, 1], [0, 2, 0], [8, 3, 0], [1, 6, 0]])
    after = Server::Cut.find(cut.id).shots.map { |shot| [shot.id, shot.recipe.document["steps"].dig(0, "parameters", "exposure"), shot.family_id.nil?] }
    expect(after.values_at(0, 2, 3)).to eq([[shots[0].id, 1.0, true], [shots[3].id, 4.0, true], [shots[1].id, 2.0, false]])
    expect(after[1][1]).to be_nil
    call(:get, "/cuts/#{cut.id}/attic")
    expect(json.map { |one| one["id"] }).to eq([shots[2].id])
    call(:post, "/projects/#{project.id}/undo")
    expect(places(call(:get, "/cuts/#{cut.id}").then { json })).to eq(before)
    call(:put, "/cuts/#{cut.id}/recut", {list:, edition: 0})
    expect(last_response.status).to eq(409)
  end

  it "brings a shot back from the attic when a list has it again, and its grade to both parts of a split" do
    made = conformed(edl(["one.mkv", 2, 5], ["two.mkv", 1, 9]))
    shots = Server::Cut.find(made["id"]).shots.to_a
    shots.each { |shot| shot.recipe.accept(revision: 0, document: Studio.balance("a", exposure: shot.id.to_f / 100), words: "x") }
    call(:put, "/cuts/#{made["id"]}/recut", {list: edl(["two.mkv", 1, 3], ["two.mkv", 6, 4])})
    grades = -> { Server::Cut.find(made["id"]).shots.map { |shot| [shot.recipe.document["steps"].dig(0, "parameters", "exposure"), shot.clock] } }
    expect(grades.call).to eq([[shots[1].id / 100.0, 0], [shots[1].id / 100.0, 5]])
    call(:put, "/cuts/#{made["id"]}/recut", {list: edl(["one.mkv", 3, 4], ["two.mkv", 1, 3])})
    expect(Server::Cut.find(made["id"]).shots.first.id).to eq(shots[0].id)
    expect(grades.call.first).to eq([shots[0].id / 100.0, 1])
  end

  it "refuses lists that are none, and rates that are not the project's, with the line" do
    {"trial.edl" => "001  A  V  C  00:00:00:00 00:00:01:00 01:00:00:00\n", "cut.otio" => "{\"OTIO_SCHEMA\": \"Timeline.1\"", "empty.edl" => ""}.each do |name, text|
      call(:post, "/projects/#{project.id}/lists", {list: {name:, text:}})
      expect([last_response.status, json["error"]]).to match([422, /#{name}/]), name
    end
    call(:post, "/projects/#{project.id}/lists", {list: edl(["one.mkv", 2, 5]).merge(rate: "25")})
    expect(json["error"]).to match(/project's 24.*25/)
    call(:post, "/projects/#{project.id}/lists", {list: {name: "x", bytes: "%%%"}})
    expect(json["error"]).to match(/base64/)
    call(:post, "/projects/#{project.id}/lists", {list: {name: "latin.edl", bytes: Base64.strict_encode64(edl(["one.mkv", 2, 5])[:text].sub("TRIAL", "CAF\xC9".b).b)}})
    expect(json["title"]).to eq("CAFÉ")
  end
end

RSpec.describe "flat programmes", type: :request do
  let(:folder) { Dir.mktmpdir("media") }
  let(:project) { Server::Project.create!(name: "Flat", width: 96, height: 54) }

  after { FileUtils.rm_rf(folder) }

  # Stretches of moving test pictures, one after another.
  def programme(name, *parts)
    inputs = parts.flat_map { |source, frames| ["-f", "lavfi", "-i", "#{source}=s=192x108:r=24,trim=end_frame=#{frames}"] }
    joined = parts.each_index.map { |index| "[#{index}:v]setsar=1,format=yuv420p[v#{index}]" }.join(";") + ";" + parts.each_index.map { |index| "[v#{index}]" }.join + "concat=n=#{parts.size}:v=1:a=0"
    system("ffmpeg", "-v", "error", "-y", *inputs, "-filter_complex", joined, "-c:v", "libx264", "-crf", "12", "-timecode", "01:00:00:00", File.join(folder, name), exception: true)
    Server::Intake::Taking.new(project, Server::MediaRoot.configure(folder)).call(name)
  end

  it "are cut up at their shot changes by a worker, as one change" do
    clip = programme("flat.mp4", ["mandelbrot", 40], ["testsrc2", 30], ["smptehdbars", 30])
    call(:post, "/projects/#{project.id}/cuts", {name: "Cut 1", clips: [clip.id]})
    cut, shot = json["id"], json["shots"][0]["id"]
    call(:post, "/cuts/#{cut}/changes", {shot:})
    expect(last_response.status).to eq(202)
    work_off
    call(:get, "/errands/#{json["id"]}")
    expect([json["status"], json["count"]]).to eq(["done", 100])
    expect([json["status"], json["result"]]).to eq(["done", {"shots" => 3, "kinds" => {"cut" => 2}}])
    call(:get, "/cuts/#{cut}")
    expect(json["shots"].map { |one| one.values_at("name", "source_in", "length") }).to eq([["1", 0, 40], ["2", 40, 30], ["3", 70, 30]])
    call(:post, "/projects/#{project.id}/undo")
    call(:get, "/cuts/#{cut}")
    expect(json["shots"].map { |one| one["length"] }).to eq([100])
  end

  it "are cut where a list says, baked transitions as stretches of their own" do
    clip = programme("flat.mp4", ["testsrc2", 100])
    text = <<~EDL
      001  A        V     C        00:00:00:00 00:00:01:16 01:00:00:00 01:00:01:16
      * FROM CLIP NAME: first
      002  A        V     C        00:00:00:00 00:00:00:00 01:00:01:16 01:00:01:16
      002  B        V     D    012 00:00:00:00 00:00:02:12 01:00:01:16 01:00:04:04
      * TO CLIP NAME: second
    EDL
    call(:post, "/projects/#{project.id}/cuts", {name: "Notched", list: {name: "x.edl", text:}, over: clip.id})
    expect(json["shots"].map { |one| one.values_at("name", "source_in", "length") }).to eq([["first", 0, 40], ["second dissolve", 40, 12], ["second", 52, 48]])
    expect(json["start"]).to eq("01:00:00:00")
  end

  it "lie under a cut as its reference, and what plainly differs is found" do
    source = programme("source.mp4", ["mandelbrot", 60], ["testsrc2", 60])
    flat = programme("flat.mp4", ["mandelbrot", 40], ["testsrc2", 40])
    call(:post, "/projects/#{project.id}/cuts", {name: "Cut 1", clips: [source.id]})
    cut, shot = json["id"], json["shots"][0]["id"]
    call(:post, "/cuts/#{cut}/assembly", {operation: "split", frame: 60})
    second = json["places"][1]["id"]
    call(:post, "/cuts/#{cut}/assembly", {operation: "length", shot:, length: 40})
    call(:post, "/cuts/#{cut}/assembly", {operation: "length", shot: second, length: 40})
    call(:patch, "/cuts/#{cut}", {reference: {clip: flat.id}})
    expect(json["reference"]).to eq("clip" => flat.id, "name" => "flat", "offset" => 0, "frames" => 80)
    differing = lambda do
      call(:post, "/cuts/#{cut}/comparisons", {})
      work_off
      call(:get, "/errands/#{json["id"]}")
      expect(json["message"]).to be_nil
      json["result"]
    end
    expect(differing.call.slice("disagreements", "longer")).to eq("disagreements" => [], "longer" => 0)
    call(:post, "/cuts/#{cut}/assembly", {operation: "slip", shot: second, by: 7})
    found = differing.call["disagreements"]
    expect(found.map { |one| one.values_at("shot", "kind", "by", "words") }).to eq([[second, "slip", -7, "the programme shows frames 7 earlier"]])
    call(:post, "/projects/#{project.id}/undo")
    screen = Server::Screens.of(project.reload, nil)
    wish = Server::Pictures::Wish.new(cut: Server::Cut.find(cut), frame: 50, screen:)
    other = Server::Pictures::Second.of(wish, {"programme" => true}, "second")
    shown = Server::Pictures::Desk.current.picture(other)[1]
    codes = flat.reader.frame(50, width: shown.width, height: shown.height)
    expect((shown.rgb - Numo::SFloat.cast(codes.rgb) / 65_535).abs.max).to be < 0.002 # as it was finished, to the code
    expect { Server::Pictures::Second.of(wish.with(frame: 80), {"programme" => true}, "second") }.to raise_error(Mordant::ParameterError, /frame 80 of 80/)
  end
end
