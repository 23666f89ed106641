# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Screens", type: :request do
  let(:settings) { {"target" => "rec709-bt1886"} }
  let(:off) { {"primaries" => [[0.65, 0.33], [0.29, 0.62], [0.15, 0.055]], "white" => [0.30, 0.32], "peak" => 110.0, "black" => 0.05, "gamma" => [2.2, 2.35, 2.5], "settle" => 0.004} }
  let(:probe) { {"noise" => 0.0005, "floor" => 0.001, "integration" => 0.001} }
  let(:lines) { [] }

  before { stub_const("Mordant::Calibration::Settling::BLACK_FIRST", 0.02) }

  after { lines.each(&:stop) }

  # @return [String] the address where it is served
  def serve(device)
    line = Mordant::Calibration::Line::Server.new(device)
    lines << line
    Thread.new { line.run }
    line.address
  end

  def bring(name, document = off, **more)
    screen = Mordant::Calibration::StandIn::Screen.new(document)
    at = serve(screen)
    eye = serve(Mordant::Calibration::StandIn::Probe.new(probe, screen: Mordant::Calibration::Line::Screen.new(at)))
    call(:post, "/screens", {name:, kind: "control", screen: at, probe: eye, settings:, **more})
    expect(last_response.status).to eq(201), last_response.body
    json["id"]
  end

  def begin_session(id, **body)
    call(:post, "/screens/#{id}/calibrations", body)
    expect(last_response.status).to eq(202), last_response.body
    json["id"]
  end

  def measured(id, **body)
    session = begin_session(id, **body)
    work_off
    call(:get, "/calibrations/#{session}")
    json
  end

  def listed(id)
    call(:get, "/screens")
    json["screens"].find { |one| one["id"] == id }
  end

  # @return [Hash{String => String}] of an answer with a picture
  def parts(cut, on)
    call(:post, "/cuts/#{cut.id}/picture", {frame: 0, on:, scopes: {histogram: true}})
    data = last_response.body.b
    length = data.unpack1("L<")
    at = 4 + length
    JSON.parse(data[4, length])["parts"].to_h { |part| [part["name"], data[at, part["length"]].tap { at += part["length"] }] }
  end

  it "are measured, corrected and measured again, and what comes of it is kept" do
    id = bring("Desk")
    session = measured(id)
    expect(session.values_at("status", "done")).to eq(["done", session["count"]])
    before, after = session["report"].values_at("before", "after")
    expect(before.values_at("de2000_mean", "white_duv")).to match([a_value > 2, a_value > 0.005])
    expect(after.values_at("de2000_mean", "de2000_max")).to match([a_value < 1, a_value < 3])
    expect(listed(id)).to include("loaded" => session["id"], "age" => 0, "overdue" => false, "words" => "verified today")
    call(:get, "/calibrations/#{session["id"]}/report.html")
    expect(last_response.body).to include("Mean dE2000", format("%.2f", after["de2000_mean"]))
    call(:get, "/calibrations/#{session["id"]}/report.json")
    expect(json["before"]["patches"].size).to eq(44)
    call(:get, "/calibrations/#{session["id"]}/correction.cube")
    expect(last_response.body).to include("LUT_3D_SIZE 17")
  end

  it "are verified through what is loaded, by the same patches and nothing else" do
    id = bring("Desk")
    first = measured(id)
    Server::Calibration.update_all(ended_at: 40.days.ago)
    expect(listed(id)).to include("age" => 40, "overdue" => true, "words" => "verified 40 days ago; verify it again")
    again = measured(id, verify: true)
    expect(again).to include("status" => "done", "verifies" => first["id"], "count" => 44)
    expect(again["report"]["after"]["de2000_mean"]).to be < 1
    expect(again["report"]).not_to have_key("before")
    expect(listed(id)).to include("loaded" => first["id"], "age" => 0)
    expect(listed(id)["sessions"].map { |one| one["id"] }).to eq([again["id"], first["id"]])
  end

  it "pass the pictures of their own window through what corrects them, and no instrument and no file" do
    cut = Studio.cut(@folder)
    id = bring("Desk")
    session = measured(id)
    project = Server::Project.find(cut.project_id)
    wish = {"screen" => id}
    plain, corrected = [nil, wish].map { |on| Server::Screens.of(project, on) }
    expect(corrected.encoding).to eq("rec709-bt1886")
    working = Mordant::Frame.new(Numo::SFloat.cast(Mordant::Lut::Lattice.nodes(5)) * 0.6 + 0.1, width: 25, height: 5, encoding: project.space.log)
    expect(corrected.measured(working).rgb).to eq(plain.measured(working).rgb)
    cube = Mordant::Lut::Cube.new("x", Server::Calibration.find(session["id"]).cube).table.lattice
    uncorrected = plain.drawn(working, plain.measured(working)).rgb
    expect(corrected.drawn(working, corrected.measured(working)).rgb).to eq(Numo::NArray.vstack(cube.call(3.times.map { |channel| uncorrected[channel, true].dup })))
    pictures, histograms = [{}, wish].map { |on| parts(cut, on) }.map { |all| all.values_at("picture", "histogram") }.transpose
    expect([pictures.uniq.size, histograms.uniq.size]).to eq([2, 1])
    expect([plain.stamp, Server::Screens.of(project, wish).stamp].uniq.size).to eq(2)
    call(:put, "/screens/#{id}", {settings: {"target" => "srgb"}})
    expect([json["canvas"], Server::Screens.of(project, wish).encoding]).to eq(["2.4", "rec709-bt1886"]) # what is loaded was made for
    call(:post, "/screens/#{id}/unload")
    expect(json["canvas"]).to eq("srgb")
    call(:put, "/screens/#{id}", {settings:})
    expect(Server::Screens.of(project, wish).stamp).to eq(plain.stamp)
  end

  it "pause, go on where they were, and end with what they have read" do
    id = bring("Desk")
    session = begin_session(id)
    read = 0
    allow_any_instance_of(Server::CalibrationJob).to receive(:step).and_wrap_original do |step, *arguments|
      call(:post, "/calibrations/#{session}/pause") if (read += 1) == 61
      step.call(*arguments)
    end
    work_off
    call(:get, "/calibrations/#{session}")
    kept = Server::Calibration.find(session).journal["readings"]
    expect(json.values_at("status", "done")).to match(["paused", a_value_between(20, 40)])
    call(:post, "/calibrations/#{session}/pause")
    expect([last_response.status, json["error"]]).to match([409, /is paused/])
    call(:post, "/calibrations/#{session}/go-on")
    work_off
    call(:get, "/calibrations/#{session}")
    expect(json).to include("status" => "done")
    expect(Server::Calibration.find(session).journal["readings"].first(kept.size)).to eq(kept)
    call(:post, "/calibrations/#{session}/cancel")
    expect(last_response.status).to eq(409)
  end

  it "tell of a probe that stops in the middle, and go on when it is there again" do
    id = bring("Desk")
    session = begin_session(id)
    read = 0
    allow_any_instance_of(Mordant::Calibration::StandIn::Probe).to receive(:read).and_wrap_original do |see|
      raise IOError, "unplugged" if (read += 1) == 90

      see.call
    end
    work_off
    call(:get, "/calibrations/#{session}")
    expect(json.values_at("status", "message")).to match(["failed", "probe: has stopped answering at #{listed(id)["probe"]}; start it again, and go on with the session"])
    call(:get, "/calibrations/#{session}")
    expect(json["done"]).to be_between(20, 80)
    call(:post, "/calibrations/#{session}/go-on")
    work_off
    call(:get, "/calibrations/#{session}")
    expect(json).to include("status" => "done", "message" => nil)
  end

  it "go on with another worker when theirs is killed" do
    id = bring("Desk")
    session = begin_session(id)
    read = 0
    allow_any_instance_of(Server::CalibrationJob).to receive(:step).and_wrap_original do |step, *arguments|
      raise NoMemoryError if (read += 1) == 80

      step.call(*arguments)
    end
    expect { work_off }.to raise_error(NoMemoryError)
    kept = Server::Calibration.find(session)
    expect([kept.status, kept.done]).to match(["running", a_value > 20])
    Server::CalibrationJob.new({}).run(session)
    expect(kept.reload.status).to eq("done")
  end

  it "refuse what cannot be, in words" do
    id = bring("Desk")
    {{name: "Desk"} => "name: expected a name no screen has yet", {name: "B", screen: "10.0.0.1:80"} => "screen: expected an address on this machine", {name: "B", kind: "wall"} => "kind: expected control or reference",
     {name: "B", settings: {"target" => "film"}} => "target: expected rec709-bt1886", {name: "B", days: 0} => "days: expected whole days", {name: "B", size: 3} => "screen: expected only", {} => "name: expected a text",
     {name: "B", settings: {"drift" => "NaN"}} => "settings.drift: expected a number"}.each do |body, words|
      call(:post, "/screens", body)
      expect([last_response.status, json["error"]]).to match([422, a_string_starting_with(words)])
    end
    call(:post, "/screens/#{id}/calibrations", {verify: true})
    expect([last_response.status, json["error"]]).to eq([409, "Desk has no correction to verify yet; measure it first"])
    begin_session(id)
    call(:post, "/screens/#{id}/calibrations", {})
    expect([last_response.status, json["error"]]).to eq([409, "Desk is being measured already; wait for it, or cancel it"])
    call(:delete, "/screens/#{id}")
    expect(last_response.status).to eq(409)
    call(:post, "/cuts/#{Studio.cut(@folder).id}/picture", {frame: 0, width: 96, height: 54, on: {screen: 9999}, seq: 1, hand: "a"})
    expect(last_response.status).to eq(404)
  end

  it "are told apart from probes, and from nothing" do
    screen = Mordant::Calibration::StandIn::Screen.new(off)
    at = serve(screen)
    call(:post, "/screens", {name: "Odd", screen: at, probe: at})
    session = measured(json["id"])
    expect(session.values_at("status", "message")).to eq(["failed", "probe: a screen answers there, not a probe; give the other address"])
    lines.each(&:stop)
    call(:post, "/calibrations/#{session["id"]}/go-on")
    work_off
    call(:get, "/calibrations/#{session["id"]}")
    expect(json["message"]).to eq("screen: nothing answers at #{at}; start it, or give another address")
  end
end
