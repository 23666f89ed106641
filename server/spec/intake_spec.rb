# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Intake", type: :request do
  let(:project) { Server::Project.create!(name: "Trial", width: 64, height: 36) }
  let!(:root) { Server::MediaRoot.configure(@folder, label: "cards") }

  def fill
    FileUtils.mkdir_p(File.join(@folder, "day/a"))
    Footage.steps(File.join(@folder, "day/a"), name: "late.mov", arguments: ["-timecode", "11:00:00:00", "-c:v", "libx264", "-pix_fmt", "yuv420p10le"])
    Footage.steps(File.join(@folder, "day"), name: "early.mov", arguments: ["-timecode", "09:00:00:00", "-c:v", "libx264", "-pix_fmt", "yuv420p10le",
      "-metadata", "encoding=acescct", "-movflags", "use_metadata_tags"])
    whole = File.binread(File.join(@folder, "day/early.mov"))
    File.binwrite(File.join(@folder, "day/cut_short.mov"), whole[0, whole.size / 2])
    File.binwrite(File.join(@folder, "day/notes.txt"), "sunny")
    File.binwrite(File.join(@folder, "day/odd.xyz"), "?")
    3.times { |n| Mordant::Media::Stills.write(Frames.flat([0.3] * 3, width: 64, height: 36), File.join(@folder, format("day/run.%04d.png", n * ((n > 1) ? 2 : 1)))) }
  end

  it "shows folders below the roots and nothing else" do
    fill
    call(:get, "/media")
    expect(json).to eq([{"id" => root.id, "label" => "cards"}])
    call(:get, "/media/#{root.id}?path=day")
    expect(json["entries"].first).to include("name" => "a", "folder" => true, "path" => "day/a")
    File.symlink("/etc", File.join(@folder, "day/out"))
    ["..", "day/../..", "/etc", "day/out", "nowhere", "day/early.mov", "a\0b"].each do |path|
      call(:get, "/media/#{root.id}?path=#{Rack::Utils.escape(path)}")
      expect(last_response.status).to eq(422), path
      expect(json["path"]).to eq("path")
    end
  end

  it "takes everything beneath a folder in, and lists what it refused with the reason" do
    fill
    call(:post, "/projects/#{project.id}/intakes", {root: root.id, path: "day"})
    expect([last_response.status, json["status"]]).to eq([202, "waiting"])
    work_off
    expect(Server::Intake.last).to have_attributes(status: "done", found: 5, done: 5, refused: 2)
    call(:get, "/projects/#{project.id}/clips")
    found = json.to_h { |clip| [clip["path"], clip] }
    expect(found.values_at("day/early.mov", "day/a/late.mov").map { |clip| clip["status"] }).to eq(%w[ready ready])
    expect(found["day/early.mov"]).to include("encoding" => "acescct", "encoding_reason" => "the file declares it", "start" => "09:00:00:00", "frames" => 12, "bit_depth" => 10)
    expect(found["day/a/late.mov"]["encoding"]).to be_nil
    expect(found["day/cut_short.mov"]).to include("status" => "refused", "reason" => /cut short/)
    expect(found["day/odd.xyz"]["reason"]).to match(/not a kind of file/)
    expect(found["day/run.[0000-0004].png"]).to include("status" => "ready", "frames" => 5, "gaps" => [[2, 3]], "run" => true, "rate" => "24/1")
    expect(found).not_to include("day/notes.txt")
  end

  it "keeps what somebody assigned when the folder is taken in again" do
    fill
    2.times do
      call(:post, "/projects/#{project.id}/intakes", {root: root.id, path: "day/a"})
      work_off
      clip = Server::Clip.find_by!(path: "day/a/late.mov")
      call(:patch, "/projects/#{project.id}/clips", {clips: [clip.id], encoding: "log3g10-wgrgb"})
    end
    expect(Server::Clip.where(path: "day/a/late.mov").pluck(:encoding, :encoding_reason)).to eq([["log3g10-wgrgb", "assigned by hand"]])
    call(:patch, "/projects/#{project.id}/clips", {clips: [Server::Clip.first.id], encoding: "nonsense"})
    expect([last_response.status, json["error"]]).to match([422, /no encoding "nonsense"/])
  end

  it "says so when a folder holds nothing, and refuses one outside" do
    Dir.mkdir(File.join(@folder, "empty"))
    call(:post, "/projects/#{project.id}/intakes", {root: root.id, path: "empty"})
    work_off
    expect(Server::Intake.last).to have_attributes(status: "done", message: /no media/)
    call(:post, "/projects/#{project.id}/intakes", {root: root.id, path: "../.."})
    expect(last_response.status).to eq(422)
  end

  it "makes a cut of clips in the order of their timecode" do
    fill
    call(:post, "/projects/#{project.id}/intakes", {root: root.id, path: "day"})
    work_off
    ready = Server::Clip.ready.where("path LIKE '%.mov'").pluck(:id)
    call(:post, "/projects/#{project.id}/cuts", {name: "Dailies", clips: ready})
    expect(last_response.status).to eq(201)
    expect(json["shots"].map { |shot| [shot["clip"]["name"], shot["record_in"], shot["length"]] }).to eq([["early.mov", 0, 12], ["late.mov", 12, 12]])
    call(:post, "/projects/#{project.id}/cuts", {name: "Dailies", clips: ready})
    expect([last_response.status, json["path"]]).to eq([422, "name"])
    call(:post, "/projects/#{project.id}/cuts", {name: "More", clips: [999]})
    expect(last_response.status).to eq(404)
    call(:post, "/projects/#{project.id}/cuts", {name: "More", clips: Server::Clip.where(status: "refused").pluck(:id)})
    expect(last_response.status).to eq(422)
  end
end
