# frozen_string_literal: true

require_relative "spec_helper"
require "vips"
require "rubygems/package"

RSpec.describe "Orders", type: :request do
  let(:cut) { Studio.cut(@folder) }
  let(:delivery) { Server::Settings.delivery }

  before do
    FileUtils.rm_rf(delivery)
    FileUtils.mkdir_p(delivery)
  end

  def order(**body)
    call(:post, "/cuts/#{cut.id}/orders", {kinds: %w[exr-ap0 review-h264], template: "{project}/{cut}_{kind}", **body})
  end

  it "delivers the cut in both kinds, graded, and offers them for download" do
    cut.loaded_shots.first.recipe.accept(revision: 0, document: Studio.balance(exposure: 1.0), words: "x")
    order
    expect(last_response.status).to eq(201)
    work_off
    expect(Server::Output.pluck(:status, :done)).to eq([["done", 14]] * 2), Server::Output.pluck(:message).inspect
    frames = Dir.glob(File.join(delivery, "Trial/Cut_1_exr-ap0/*.exr")).sort
    expect(frames.map { |file| File.basename(file) }).to eq((0...14).map { |n| format("Cut_1_exr-ap0.%07d.exr", 86_400 + n) })
    light = Mordant::Colour::Transfer::Acescct.decode(Numo::DFloat[Footage.code(3) / 65_535.0])[0] * 2
    expect(Vips::Image.new_from_file(frames[3]).getpoint(9, 9).first(3)).to all(be_within(light / 500).of(light))
    facts = Mordant::Media::Probe.call(File.join(delivery, "Trial/Cut_1_review-h264.mp4"))
    expect(facts).to have_attributes(frames: 14, width: 64, height: 36, codec: "h264", range: "legal")
    call(:get, "/outputs/#{Server::Output.first.id}/file")
    names = []
    Gem::Package::TarReader.new(StringIO.new(last_response.body)).each { |entry| names << entry.full_name }
    expect(names.size).to eq(14)
    expect(names.first).to start_with("Cut_1_exr-ap0/")
  end

  it "delivers chosen shots each by itself" do
    order(kinds: ["exr-ap0"], shots: [cut.loaded_shots.last.id], template: "{shot}")
    work_off
    expect(Dir.children(File.join(delivery, "two")).size).to eq(6)
  end

  it "refuses names that would overwrite, clash or escape, and queues nothing then" do
    FileUtils.mkdir_p(File.join(delivery, "taken"))
    shots = cut.loaded_shots.map(&:id)
    {{template: "../{cut}"} => "below the delivery folder", {template: "/tmp/x"} => "below", {template: "taken", kinds: ["exr-ap0"]} => "not taken yet",
     {template: "{cut}", shots:} => "no other output has", {template: "{film}"} => "tokens among", {kinds: []} => "at least one kind",
     {kinds: ["film"]} => "no output", {shots: []} => "at least one shot"}.each do |body, words|
      order(**body)
      expect([last_response.status, json["error"]]).to match([422, /#{words}/]), body.inspect
    end
    expect([Server::Output.count, Server::Record.connection.select_value("SELECT count(*) FROM que_jobs")]).to eq([0, 0])
  end

  it "refuses clips nobody has assigned an encoding to" do
    cut.loaded_shots.last.clip.update!(encoding: nil, encoding_reason: nil)
    order
    expect([last_response.status, json["error"]]).to match([422, /shot two.*encoding is assigned/])
  end

  it "cancels what waits at once, and what runs at its next frame, leaving nothing behind" do
    order
    waiting, running = Server::Output.order(:id).to_a
    call(:post, "/outputs/#{waiting.id}/cancel")
    expect(json["status"]).to eq("cancelled")
    running.update!(cancelling: true)
    work_off
    expect(running.reload.status).to eq("cancelled")
    expect(Dir.glob(File.join(delivery, "**/*"), File::FNM_DOTMATCH).select { |path| File.file?(path) }).to be_empty
  end

  it "goes on after the finished frames of a worker that was killed" do
    order(kinds: ["exr-ap0"])
    work_off
    folder = File.join(delivery, "Trial/Cut_1_exr-ap0")
    whole = Dir.children(folder).sort.to_h { |name| [name, File.binread(File.join(folder, name))] }
    whole.keys.drop(5).each { |name| File.delete(File.join(folder, name)) }
    kept = File.stat(File.join(folder, whole.keys.first)).mtime
    Server::Output.first.update!(status: "running", done: 5)
    Server::OutputJob.new({}).run(Server::Output.first.id)
    expect(Dir.children(folder).sort.to_h { |name| [name, File.binread(File.join(folder, name))] }).to eq(whole)
    expect(File.stat(File.join(folder, whole.keys.first)).mtime).to eq(kept)
    expect(Server::Output.first.status).to eq("done")
  end

  it "says which file failed, keeps finished frames, and does not stop the other output" do
    order
    File.truncate(File.join(@folder, "two.mkv"), File.size(File.join(@folder, "two.mkv")) / 3)
    work_off
    expect(Server::Output.pluck(:status).uniq).to eq(["failed"])
    expect(Server::Output.pluck(:message)).to all(match(/two\.mkv/))
    expect(Dir.glob(File.join(delivery, "Trial/Cut_1_exr-ap0/*.exr")).size).to be >= 8
    expect(Dir.glob(File.join(delivery, "Trial/{*,.*}.part"))).to be_empty
  end

  it "says that the disk is full" do
    order(kinds: ["exr-ap0"])
    allow(File).to receive(:binwrite).and_raise(Errno::ENOSPC)
    work_off
    expect(Server::Output.first).to have_attributes(status: "failed", message: /disk is full/)
  end

  it "tells its progress as server-sent events" do
    order(kinds: ["review-h264"])
    state = Server::EventRoutes.state(cut.project)
    expect(state.values.first).to include(status: "waiting", frames: 14)
    out = []
    allow(Server::EventRoutes).to receive(:sleep) { raise IOError if out.size > 1 || !Server::Output.first.update!(status: "running", done: 7) }
    Server::EventRoutes.follow(cut.project, out)
    expect(out).to match([/\Aevent: output\ndata: .*waiting.*\n\n\z/, /running.*"done":7/])
  end
end
