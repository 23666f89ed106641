# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Stills" do
  include Api

  around do |example|
    Dir.mktmpdir do |folder|
      @folder = File.realpath(folder)
      before = ENV.to_h.slice("MORDANT_LIBRARY", "MORDANT_DELIVERY")
      ENV.update("MORDANT_LIBRARY" => File.join(@folder, "library"), "MORDANT_DELIVERY" => File.join(@folder, "out").tap { |path| Dir.mkdir(path) })
      example.run
    ensure
      %w[MORDANT_LIBRARY MORDANT_DELIVERY].each { |name| ENV[name] = before[name] }
    end
  end

  let(:cut) { Studio.cut(@folder) }
  let(:shot) { cut.loaded_shots.first }

  def answer_of(response = last_response)
    size = response.body.unpack1("L<")
    header = JSON.parse(response.body[4, size])
    at = 4 + size
    parts = header["parts"].to_h { |part| [part["name"], response.body.byteslice(at, part["length"]).tap { at += part["length"] }] }
    [header, parts]
  end

  def picture(**wish) = call(:post, "/cuts/#{cut.id}/picture", {frame: 3, **wish}).then { answer_of }

  def photograph(name = "photo.png", grey: 120)
    Vips::Image.black(80, 20, bands: 3).+(grey).cast(:uchar).copy(interpretation: :srgb).write_to_buffer(File.extname(name))
  end

  it "are brought in and compared with, fitted into the raster in the view's codes" do
    call(:post, "/projects/#{cut.project_id}/stills?name=photo.png", photograph)
    expect([last_response.status, json.first]).to match([201, include("name" => "photo", "encoding" => "srgb")])
    id = json.first["id"]
    _, parts = picture(still: id)
    image = Vips::Image.new_from_buffer(parts["picture"], "")
    wanted = Mordant::Grade::Screen.onward("srgb", "rec709-bt1886").call(Numo::SFloat.new(3, 1).fill(120 / 255.0))[0, 0] * 255
    expect(image.getpoint(32, 18).first).to be_within(1).of(wanted)
    expect(image.getpoint(32, 1)).to eq([0, 0, 0])
    header, parts = picture(beside: {still: id})
    expect(header["parts"].map { |part| part["name"] }).to include(a_string_starting_with("beside_"))
    expect(parts.keys).to include("picture")
    call(:delete, "/stills/#{id}")
    expect([json, Dir[File.join(Server::Still.folder, "*")]]).to eq([[], []])
  end

  it "freeze what is seen; what is graded afterwards does not reach them" do
    before = picture[1]["picture"]
    call(:post, "/cuts/#{cut.id}/stills", {frame: 3, name: "one as it was"})
    errand = json["id"]
    expect([last_response.status, json]).to match([202, include("kind" => "freeze", "status" => "waiting")])
    shot.recipe.accept(revision: 0, document: Studio.balance("own", exposure: 2.0), words: "x")
    work_off
    call(:get, "/errands/#{errand}")
    id = json["result"]["still"]["id"]
    expect(picture[1]["picture"]).not_to eq(before)
    expect(picture(still: id)[1]["picture"]).to eq(before)
    expect(Server::Still.find(id).origin).to eq("cut" => "Cut 1", "shot" => "one", "timecode" => "01:00:00:03")
  end

  it "refuses what is no picture, and other encodings, and keeps nothing" do
    post = ->(name, bytes, query = "") { call(:post, "/projects/#{cut.project_id}/stills?name=#{name}#{query}", bytes).then { [last_response.status, json["error"]] } }
    expect(post["a.png", "nothing"]).to match([422, /a\.png.*no PNG, TIFF, JPEG, DPX or OpenEXR/]).and satisfy { |_, words| !words.include?("/tmp") }
    expect(post["a.png", photograph[0, 60]]).to match([422, /a\.png/])
    expect(post["a.gif", "GIF89a#{"\0" * 40}"]).to match([422, /a\.gif.*no PNG/])
    expect(post["a.png", photograph, "&encoding=acescct"]).to match([422, /display encoding/])
    expect(post["a.png", photograph, "&encoding=none"].first).to eq(422)
    expect(Server::Still.count).to eq(0)
    call(:post, "/cuts/#{cut.id}/picture", {frame: 0, still: 99_999})
    expect(last_response.status).to eq(404)
  end

  it "leave in open formats with the viewer's codes, and overwrite nothing" do
    shot.recipe.accept(revision: 0, document: Studio.balance("own", exposure: 0.5), words: "x")
    wanted = cut.project.output.run(cut.source_of(shot.reload).plan.run(shot.clip.reader.frame(3, width: 64, height: 36))).at(10, 10).to_a
    %w[png tiff jpeg dpx exr png].each { |format| call(:post, "/cuts/#{cut.id}/export", {frame: 3, format:}) }
    work_off
    files = Dir.children(File.join(@folder, "out/stills")).sort
    expect(files).to eq(%w[-2.png .dpx .exr .jpg .png .tif].map { |ending| "Trial_Cut_1_one_01-00-00-03#{ending}" })
    png, tif, jpg = %w[png tif jpg].map { |ending| Vips::Image.new_from_file(File.join(@folder, "out/stills/Trial_Cut_1_one_01-00-00-03.#{ending}")).getpoint(10, 10) }
    expect(png).to match(wanted.map { |code| be_within(1).of(code * 65_535) })
    expect(tif).to eq(png)
    expect(jpg).to match(wanted.map { |code| be_within(2).of(code * 255) })
    call(:post, "/cuts/#{cut.id}/export", {frame: 3, format: "gif"})
    expect([last_response.status, json["path"]]).to eq([422, "format"])
  end

  it "say so when the folder cannot be written to" do
    File.write(File.join(@folder, "out/stills"), "a file in the way")
    call(:post, "/cuts/#{cut.id}/export", {frame: 3, format: "png"})
    work_off
    expect(Server::Errand.last).to have_attributes(status: "failed", message: /stills/)
  end
end

RSpec.describe "Flags and posters" do
  include Api

  around { |example| Dir.mktmpdir { |folder| (@folder = File.realpath(folder)) && example.run } }

  let(:cut) { Studio.cut(@folder) }
  let(:shots) { cut.loaded_shots }

  it "mark many shots in one change that can be undone" do
    call(:post, "/cuts/#{cut.id}/flags", {shots: shots.map(&:id), flag: "woad", note: " too cold ", words: "two flagged"})
    expect(json["shots"].map { |one| one.values_at("flag", "note") }).to eq([["woad", "too cold"]] * 2)
    call(:post, "/projects/#{cut.project_id}/undo")
    expect([json["beyond"], shots.map { |shot| shot.reload.flag }]).to eq([true, [nil, nil]])
    {{flag: "blue"} => "flag", {note: 3} => "note", {note: "x" * 501} => "note", {shots: []} => "shots"}.each do |values, path|
      call(:post, "/cuts/#{cut.id}/flags", {shots: [shots.first.id], flag: "woad", words: "x", **values})
      expect([last_response.status, json["path"]]).to eq([422, path])
    end
  end

  it "put a frame of the shot in front, chosen or where it was worked on last" do
    call(:put, "/shots/#{shots.last.id}/poster", {frame: 9})
    call(:put, "/recipes/#{shots.last.recipe.id}", {revision: 0, document: Studio.balance(exposure: 1.0), words: "x", frame: 10})
    expect(shots.last.reload.to_h).to include(poster: 1, worked: 2)
    call(:put, "/shots/#{shots.last.id}/poster", {frame: 3})
    expect([last_response.status, json["path"]]).to eq([422, "frame"])
    call(:put, "/recipes/#{shots.last.recipe.id}", {revision: 1, document: Studio.balance(exposure: 2.0), words: "x", frame: 3})
    expect([last_response.status, shots.last.recipe.reload.revision]).to eq([422, 1])
    first, last = [0, 5].map { |frame| call(:get, "/shots/#{shots.last.id}/small.png?frame=#{frame}").body }
    expect(first).not_to eq(last)
  end

  it "take many shots into a family as one change" do
    family = Server::Family.form(cut, name: "Quay", members: [shots.first], words: "x")
    call(:post, "/families/#{family.id}/members", {shots: [shots.last.id], words: "y"})
    expect(json["members"].values).to eq([family.id] * 2)
  end
end
