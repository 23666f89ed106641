# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Swatches" do
  include Api

  around do |example|
    Dir.mktmpdir do |folder|
      @folder = File.realpath(folder)
      before, ENV["MORDANT_LIBRARY"] = ENV["MORDANT_LIBRARY"], File.join(@folder, "library")
      example.run
    ensure
      ENV["MORDANT_LIBRARY"] = before
    end
  end

  let(:cut) { Studio.cut(@folder) }
  let(:shot) { cut.loaded_shots.first }

  before { shot.recipe.accept(revision: 0, document: Studio.balance("own", exposure: 1.0), words: "x") }

  def keep(**values) = call(:post, "/shots/#{shot.id}/swatches", {frame: 3, **values}).then { json }

  it "keep a recipe with its picture at full raster, where it came from, and a peg" do
    found = keep(name: "Warm jetty", folder: "day/wide", description: "for the wides", peg: 3)
    expect(found.first).to include("name" => "Warm jetty", "folder" => "day/wide", "peg" => 3, "document" => shot.recipe.reload.document)
    expect(found.first["origin"]).to include("project" => "Trial", "cut" => "Cut 1", "shot" => "one", "timecode" => "01:00:00:03")
    call(:get, "/swatches/#{found.first["id"]}/picture.png")
    image = Vips::Image.new_from_buffer(last_response.body, "")
    expect([image.width, image.height, image.format]).to eq([64, 36, :ushort])
    working = cut.project.plan(shot.grade, shot.clip.source_encoding).run(shot.clip.reader.frame(3, width: 64, height: 36))
    wanted = cut.project.output.run(working).at(10, 10).to_a.map { |code| code * 65_535 }
    expect(image.getpoint(10, 10)).to match(wanted.map { |code| be_within(1).of(code) })
    call(:get, "/swatches/#{found.first["id"]}/picture.png?small=1")
    expect(Vips::Image.new_from_buffer(last_response.body, "").format).to eq(:uchar)
  end

  it "give a peg up to the one that is hung there next, are renamed and forgotten" do
    first = keep(name: "A", peg: 1).first
    both = keep(name: "B", peg: 1)
    expect(both.to_h { |one| one.values_at("name", "peg") }).to eq("A" => nil, "B" => 1)
    call(:patch, "/swatches/#{first["id"]}", {name: "C", peg: 0})
    expect(json.map { |one| one.values_at("name", "peg") }).to contain_exactly(["B", 1], ["C", 0])
    file = Server::Swatch.find(first["id"]).file
    call(:delete, "/swatches/#{first["id"]}")
    expect([json.size, File.exist?(file)]).to eq([1, false])
    call(:get, "/swatches/#{first["id"]}/picture.png")
    expect(last_response.status).to eq(404)
  end

  it "are refused with the field that is wrong, and nothing is kept" do
    {{name: " "} => "name", {name: "x" * 81} => "name", {peg: 10} => "peg", {peg: "1"} => "peg", {description: 3} => "description", {frame: 99} => "frame"}.each do |values, path|
      keep(**values)
      expect([last_response.status, json["path"]]).to eq([422, path]), values.inspect
    end
    call(:post, "/shots/#{cut.loaded_shots.last.id}/swatches", {frame: 9})
    expect([last_response.status, json["path"]]).to eq([422, "steps"])
    expect([Server::Swatch.count, Dir[File.join(Server::Swatch.folder, "*")]]).to eq([0, []])
  end

  it "leave as one file, come back from it, and are compared with" do
    found = keep(name: "Warm jetty", folder: "day", description: "for the wides").first
    call(:get, "/swatches/#{found["id"]}/file")
    expect(last_response.headers["content-disposition"]).to include("Warm_jetty.swatch.png")
    file = last_response.body
    call(:post, "/swatches/import?folder=from+others", file)
    back = json.find { |one| one["folder"] == "from others" }
    expect(back).to include(found.slice("name", "description", "origin", "encoding", "document")).and include("peg" => nil)
    call(:post, "/cuts/#{cut.id}/picture", {frame: 0, swatch: back["id"]})
    expect(last_response.status).to eq(200)
    call(:post, "/swatches/import?name=x.swatch.png", file[0, 200])
    expect([last_response.status, json["error"], Server::Swatch.count]).to match([422, /x\.swatch\.png.*ends too early/, 2])
  end

  it "go onto shots of another project, chosen steps of them" do
    found = keep(name: "A").first
    other = Server::Project.create!(name: "Other", width: 64, height: 36)
    clip = Server::Intake::Taking.new(other, shot.clip.media_root).call("two.mkv")
    theirs = Server::Cut.create_named!(other, "Cut").tap { |made| made.add([{clip:, position: 0, source_in: 0, record_in: 0, length: 4}]) }
    call(:post, "/cuts/#{theirs.id}/paste", {shots: [theirs.shots.first.id], steps: found["document"]["steps"], replace: true, words: "A recalled"})
    expect(theirs.shots.first.recipe.document["steps"].map { |step| step["parameters"]["exposure"] }).to eq([1.0])
  end
end
