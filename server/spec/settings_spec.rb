# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Project settings", type: :request do
  let(:cut) { Studio.cut(@folder) }
  let(:project) { cut.project }
  let(:shot) { cut.loaded_shots.first }

  def put(**body) = call(:put, "/projects/#{project.id}/settings", body)

  television = {"id" => "television", "name" => "Television", "encoding" => "rec709-bt1886", "rendering" => "sdr-video-1.0"}
  cinema = {"id" => "cinema", "name" => "Cinema", "encoding" => "p3-d65-g2.6", "rendering" => "sdr-cinema-1.0", "limit" => "bt709"}

  it "tells everything a person chooses, and what disagrees" do
    call(:get, "/projects/#{project.id}/settings")
    expect(json).to include("working_space" => "acescct", "canvas" => "2.4", "output_range" => "legal", "compress_gamut" => false, "input_rules" => [], "graded" => 0)
    expect(json["targets"]).to match([a_hash_including("name" => "Television", "label" => /BT.709 · gamma 2.4/)])
    expect(json["spaces"].map { |space| space["id"] }).to eq(%w[acescct acescc acescg display])
    expect(json["findings"]).to be_empty
    shot.clip.update!(encoding: nil, encoding_reason: nil)
    call(:get, "/projects/#{project.id}/settings")
    expect(json["findings"]).to match([a_hash_including("level" => "fault", "about" => "one.mkv")])
  end

  it "keeps targets, and makes pictures and instruments for the one a screen asks for" do
    put(targets: [television, cinema], canvas: "srgb")
    expect([last_response.status, json["project"]["targets"].map { |target| target["id"] }]).to eq([200, %w[television cinema]])
    expect(json["findings"].map { |one| one["level"] }.uniq).to eq(["notice"])
    sizes = [{}, {target: "cinema"}, {view: false}, {canvas: "2.4"}, {target: "gone"}].map do |on|
      call(:post, "/cuts/#{cut.id}/picture", {frame: 7, on:})
      data = last_response.body.b
      header = JSON.parse(data[4, data.unpack1("L<")])
      at = 4 + data.unpack1("L<")
      parts = header["parts"].to_h { |part| [part["name"], data[at, part["length"]].tap { at += part["length"] }] }
      [Vips::Image.new_from_buffer(parts["picture"], "").getpoint(3, 3), parts["luma"]]
    end
    expect(sizes.map(&:first).uniq.size).to eq(4) # the first and the last are the same
    expect(sizes[0][1]).to eq(sizes[3][1]) # the canvas is none of the instruments' business
    expect(sizes[0][1]).not_to eq(sizes[1][1])
  end

  it "asks before it changes what every grade acts on, and does it when told to" do
    shot.recipe.accept(revision: 0, document: Studio.balance(exposure: 1.0), words: "x")
    put(working_space: "display")
    expect([last_response.status, json["confirm"], json["error"]]).to match([409, true, /1 shot is graded. With another working space/])
    expect(project.reload.working_space).to eq("acescct")
    put(working_space: "display", confirm: true)
    expect([last_response.status, json["working_space"], json["graded"]]).to eq([200, "display", 1])
    put(canvas: "2.2")
    expect(last_response.status).to eq(200)
    expect(shot.recipe.reload.document["steps"][0]["parameters"]["exposure"]).to eq(1.0)
  end

  it "assigns by rules, leaves what was assigned by hand, and says why" do
    other = cut.loaded_shots.last.clip
    other.update!(encoding: nil, encoding_reason: nil)
    put(input_rules: [{field: "folder", pattern: "*", encoding: "log3g10-wgrgb"}])
    expect(json["reassigned"]).to eq(1)
    expect(other.reload).to have_attributes(encoding: "log3g10-wgrgb", encoding_reason: %r{rule 1: folder })
    expect(shot.clip.reload.encoding).to eq("acescct")
    call(:patch, "/projects/#{project.id}/clips", {clips: [shot.clip.id], encoding: nil})
    expect(json["clips"].first).to include("encoding" => "log3g10-wgrgb", "encoding_reason" => /rule 1/)
    put(input_rules: [])
    expect(other.reload.encoding).to be_nil
  end

  it "lets a range be set by hand, and keeps it when the folder is taken in again" do
    call(:patch, "/projects/#{project.id}/clips", {clips: [shot.clip.id], range: "full"})
    expect(json["clips"].first["range"]).to eq("full")
    Server::Intake::Taking.new(project, shot.clip.media_root).call("one.mkv")
    expect(shot.clip.reload.range).to eq("full")
    call(:patch, "/projects/#{project.id}/clips", {clips: [shot.clip.id], range: "wide"})
    expect([last_response.status, json["path"]]).to eq([422, "range"])
  end

  it "refuses what makes no sense, by its place, and changes nothing" do
    {"targets" => [], "targets[0].encoding" => [television.merge("encoding" => "linear")], "targets[0].name" => [television.merge("name" => " ")],
     "targets[0].limit" => [television.merge("limit" => "moon")]}.each do |path, targets|
      put(targets:)
      expect([last_response.status, json["path"]]).to eq([422, path])
    end
    put(targets: [television, television])
    expect(json["error"]).to match(/ids and names used once/)
    {working_space: "moon", canvas: "1.8", output_range: "wide", compress_gamut: 1, input_rules: [{}]}.each do |key, value|
      put(key => value)
      expect(last_response.status).to eq(422), key.to_s
    end
    expect(project.reload).to have_attributes(working_space: "acescct", canvas: "2.4", input_rules: [])
  end

  it "sends frames of shots as decoded for playing, and leaves dissolves out" do
    call(:get, "/cuts/#{cut.id}/playing?first=6&count=5")
    data = last_response.body.b
    header = JSON.parse(data[4, data.unpack1("L<")])
    expect(header["frames"].map { |one| one["frame"] }).to eq([6, 7, 10])
    whole = header["frames"].first.values_at("width", "height")
    call(:get, "/cuts/#{cut.id}/playing?first=6&count=1&size=play")
    data = last_response.body.b
    expect(JSON.parse(data[4, data.unpack1("L<")])["frames"].first.values_at("width", "height")).to eq(whole.map { |edge| edge / 2 })
    call(:get, "/cuts/#{cut.id}/playing?first=6&count=1&size=drag")
    expect([last_response.status, json["path"]]).to eq([422, "size"])
    call(:get, "/cuts/#{cut.id}/playing?first=6&count=500")
    expect([last_response.status, json["path"]]).to eq([422, "count"])
  end
end

RSpec.describe "The LUT library", type: :request do
  let(:cut) { Studio.cut(@folder) }
  let(:shot) { cut.loaded_shots.first }
  cube = "TITLE \"dim\"\nLUT_3D_SIZE 2\n0 0 0\n0.5 0 0\n0 0.5 0\n0.5 0.5 0\n0 0 0.5\n0.5 0 0.5\n0 0.5 0.5\n0.5 0.5 0.5\n"

  around do |example|
    Mordant::Library.root = File.join(@folder, "library")
    example.run
  ensure
    Mordant::Library.root = Server::Settings.library
  end

  it "takes files into folders, lists them, and refuses faulty ones with the line" do
    call(:post, "/luts?path=looks/dim.cube", cube)
    expect([last_response.status, json]).to match([201, a_hash_including("title" => "dim", "luts" => ["looks/dim.cube"])])
    call(:post, "/luts?path=looks/dim.cube", cube)
    expect([last_response.status, json["error"]]).to match([422, /nothing is overwritten/])
    call(:post, "/luts?path=looks/bad.cube", cube.lines[0..-2].join)
    expect([last_response.status, json["error"]]).to match([422, %r{\Alooks/bad.cube:9: expected 8 rows}])
    call(:post, "/luts?path=../x.cube", cube)
    expect(last_response.status).to eq(422)
    call(:get, "/luts")
    expect(json).to eq(["looks/dim.cube"])
  end

  it "changes a picture as a step, and says which file is gone" do
    call(:post, "/luts?path=dim.cube", cube)
    shot.recipe.accept(revision: 0, document: {"steps" => [{"id" => "l", "kind" => "lut", "parameters" => {"lut" => "dim.cube"}}]}, words: "x")
    call(:post, "/cuts/#{cut.id}/picture", {frame: 3})
    expect(last_response.status).to eq(200)
    File.delete(File.join(Mordant::Library.luts, "dim.cube"))
    call(:post, "/cuts/#{cut.id}/picture", {frame: 3})
    expect([last_response.status, json["error"]]).to match([422, /dim.cube: this LUT is not in the library any more/])
    call(:get, "/projects/#{cut.project.id}/settings")
    expect(json["findings"].map { |one| one["words"] }).to include(/not in the LUT library/)
  end

  # The cube halves its values, so that at 100 % all codes are half of those it is given.
  it "stands for a target with a strength of its own, the rest rendered as usual" do
    call(:post, "/luts?path=dim.cube", cube)
    views = [{}, {"lut" => "dim.cube", "expects" => "rec709-bt1886", "rendering" => nil}, {"lut" => "dim.cube", "expects" => "rec709-bt1886", "strength" => 0.7}]
    targets = views.each_with_index.map { |view, n| {"id" => "t#{n}", "name" => "T#{n}", "encoding" => "rec709-bt1886", **((n == 0) ? {"rendering" => "sdr-video-1.0"} : {}), **view.compact} }
    call(:put, "/projects/#{cut.project.id}/settings", {targets:})
    expect(json["targets"].map { |target| target.values_at("strength", "label") }).to match([[nil, anything], [nil, /dim.cube\z/], [0.7, /dim.cube at 70 %/]])
    shown = %w[t0 t1 t2].map { |target| Server::Pictures::Desk.current.picture(Server::Pictures::Wish.new(cut: Server::Cut.find(cut.id), frame: 3, screen: Server::Screens.of(cut.project.reload, {"target" => target})))[1].rgb[true, 9] }
    mixed = shown[0] + (shown[1] - shown[0]) * 0.7
    expect((shown[2] - mixed).abs.max).to be < 2e-4
    expect((shown[0] - shown[1]).abs.max).to be > 0.005
    call(:put, "/projects/#{cut.project.id}/settings", {targets: [targets[0].merge("strength" => 0.5)]})
    expect([last_response.status, json["path"]]).to eq([422, "targets[0].strength"])
  end

  it "knows encodings a person describes, and tells of faulty descriptions" do
    FileUtils.mkdir_p(Mordant::Library.encodings)
    File.write(File.join(Mordant::Library.encodings, "quay.yml"), "id: quay\nlabel: Quay log\nprimaries: BT.709\ncurve: {kind: gamma, gamma: 2.2}\n")
    File.write(File.join(Mordant::Library.encodings, "bad.yml"), "id: bad\n")
    call(:get, "/catalogue")
    expect(json["encodings"].find { |one| one["id"] == "quay" }).to include("label" => "Quay log", "own" => true)
    call(:patch, "/projects/#{cut.project.id}/clips", {clips: [shot.clip.id], encoding: "quay"})
    expect(json["clips"].first["encoding"]).to eq("quay")
    call(:get, "/projects/#{cut.project.id}/settings")
    expect(json["library"]["faults"]).to match([/bad.yml:1: expected curve/])
  end
end

RSpec.describe "Corrections", type: :request do
  let(:cut) { Studio.cut(@folder) }
  let(:shot) { cut.loaded_shots.first }

  before { shot.recipe.accept(revision: 0, document: Studio.balance(contrast: 1.2, gain: [1.1, 1, 1, 1]), words: "x") }

  it "leave as a CDL, exact or with its error" do
    call(:get, "/shots/#{shot.id}/correction")
    expect(json).to include("exact" => true, "left_out" => [], "saturation" => 1.0)
    call(:get, "/shots/#{shot.id}/correction.cc")
    expect(last_response.headers["content-disposition"]).to include("one.cc")
    path = File.join(@folder, "x.cc")
    File.write(path, last_response.body)
    expect(Mordant::Colour::CDLDocument.read(path).first.id).to eq("one")
    shot.recipe.accept(revision: 1, document: Studio.balance(exposure: 1.0, saturation: 1.3), words: "x")
    call(:get, "/shots/#{shot.id}/correction")
    expect(json).to include("exact" => false, "error" => {"worst" => be > 0, "mean" => be > 0})
    call(:get, "/shots/#{shot.id}/correction.xml")
    expect([last_response.status, json["path"]]).to eq([422, "format"])
  end

  it "leave for a whole cut, and come back onto the shots they are named after, in one undo" do
    %w[ccc cdl edl].each do |format|
      call(:get, "/cuts/#{cut.id}/corrections.#{format}")
      text = last_response.body
      call(:post, "/cuts/#{cut.id}/corrections", {name: "back.#{format}", text:})
      expect([last_response.status, json["without"]]).to eq([200, []]), format
      expect(json["recipes"].map { |recipe| recipe["document"]["steps"].last["kind"] }).to eq(%w[cdl cdl])
      call(:post, "/projects/#{cut.project.id}/undo")
      expect(json["words"]).to eq("CDL on 2 shots")
    end
    expect(shot.recipe.reload.document["steps"].size).to eq(1)
  end

  it "refuse what they cannot read or place" do
    call(:post, "/cuts/#{cut.id}/corrections", {name: "a.ccc", text: "<html/>"})
    expect([last_response.status, json["error"]]).to match([422, /\Aa.ccc:1: expected ColorCorrection/])
    call(:post, "/cuts/#{cut.id}/corrections", {name: "a.txt", text: ""})
    expect(json["path"]).to eq("name")
    two = Mordant::Colour::CDLDocument.write([Mordant::Colour::CDL.new(id: "x"), Mordant::Colour::CDL.new(id: "y")])
    call(:post, "/cuts/#{cut.id}/corrections", {name: "a.ccc", text: two})
    expect(json["error"]).to match(/named after the shots, clips or reels of this cut, found "x, y"/)
  end
end
