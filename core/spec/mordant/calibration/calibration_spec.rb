# frozen_string_literal: true

require "spec_helper"
require "socket"
require "tmpdir"

RSpec.describe Mordant::Calibration do
  let(:clock) { Mordant::Calibration::Clock::Counted.new }

  describe described_class::Target do
    # ITU-R BT.1886, Annex 1, with Lw = 100 and Lb = 0.1: a = 66.4396, b = 0.0596476 by hand.
    it "is BT.1886 with black considered" do
      target = described_class.new(described_class.kind("rec709-bt1886"), white: [0.3127, 0.3290], peak: 100.0, black: 0.1)
      high, low = 100**(1 / 2.4), 0.1**(1 / 2.4)
      [0.0, 0.1, 0.5, 1.0].each { |code| expect(target.light([code] * 3)[1]).to be_within(1e-9).of((high - low)**2.4 * (code + low / (high - low))**2.4) }
      expect(target.light([0.0] * 3)[1]).to be_within(1e-9).of(0.1)
      expect(target.light([1.0] * 3)).to match([be_within(0.01).of(95.04), be_within(1e-9).of(100), be_within(0.01).of(108.91)])
    end

    it "is a plain curve of the others" do
      light = ->(id, code) { described_class.new(described_class.kind(id), white: [0.3127, 0.3290], peak: 80.0, black: 0.5).light([code] * 3)[1] }
      expect(light["rec709-g2.2", 0.5]).to be_within(1e-9).of(80 * 0.5**2.2)
      expect(light["p3-d65-g2.6", 0.5]).to be_within(1e-9).of(80 * 0.5**2.6)
      expect(light["srgb", 0.5]).to be_within(1e-4).of(80 * 0.21404)
      expect { described_class.kind("film") }.to raise_error(Mordant::ParameterError, /target: expected rec709-bt1886/)
    end
  end

  describe described_class::StandIn::Screen do
    it "goes from one patch to the next exponentially, 1 % being left after its settling time" do
      screen = described_class.new({"settle" => 0.4, "black" => 0.0}, clock:)
      clock.wait(5)
      screen.show([1.0] * 3)
      clock.wait(0.4)
      expect(screen.light(0.0)[1]).to be_within(1e-6).of(99.0)
      constant = 0.4 / Math.log(100)
      expect(screen.light(0.4)[1]).to be_within(1e-6).of(100 * (1 - constant / 0.4 * 0.99))
    end

    it "loads its channels with each other, and drifts" do
      screen = described_class.new({"coupling" => 0.2, "black" => 0.0, "settle" => 0.0, "drift" => 0.1}, clock:)
      y = lambda do |*codes|
        screen.show(codes)
        screen.light(0.0)[1]
      end
      expect(y[1.0, 1.0, 1.0]).to be_within(1e-9).of(100.0)
      expect(y[0.0, 1.0, 0.0]).to be_within(0.001).of(71.517 / 0.8)
      clock.wait(1800)
      expect(y[1.0, 1.0, 1.0]).to be_within(1e-6).of(105.0)
    end

    it "refuses a description that cannot be" do
      {{"peak" => -1} => "screen.peak", {"gamma" => [2.4, Float::NAN, 2.4]} => "screen.gamma[1]", {"gamma" => [2.4]} => "screen.gamma", {"primaries" => [[0.3, 0.3]]} => "screen.primaries",
       {"primaries" => [[0.3, 0.3]] * 3} => "screen.primaries", {"white" => "D65"} => "screen.white", {"black" => 90} => "screen.black", {"colour" => 1} => "screen", {"range" => "odd"} => "screen.range"}.each do |document, path|
        expect { described_class.new(document, clock:) }.to raise_error(Mordant::ParameterError) { |error| expect(error.path).to eq(path) }
      end
    end
  end

  describe described_class::StandIn::Probe do
    def readings(light, **document)
      probe = described_class.new(document.transform_keys(&:to_s), screen: Struct.new(:light) { define_method(:light) { |_| light } }.new, clock:)
      Array.new(4000) { probe.read[1] }
    end

    def spread(values) = values.sum.fdiv(values.size).then { |mean| [mean, Math.sqrt(values.sum { |one| (one - mean)**2 } / values.size)] }

    it "is off by a share of light, and in the dark by its floor" do
      expect(spread(readings([100.0] * 3, noise: 0.002, floor: 0.003))).to match([be_within(0.02).of(100), be_within(0.01).of(0.2)])
      expect(spread(readings([0.05] * 3, noise: 0.002, floor: 0.003))).to match([be_within(0.0003).of(0.05), be_within(0.0002).of(0.003)])
    end

    it "refuses what it cannot tell" do
      expect { readings([0.002] * 3) }.to raise_error(Mordant::Calibration::Refused, /too dark/)
      expect { readings([900.0] * 3, ceiling: 500) }.to raise_error(Mordant::Calibration::Refused, /saturated/)
    end
  end

  it "says how much of a gamut another covers, and whether black is dark" do
    reach = ->(primaries, black = 0.05) { described_class::Reach.new(primaries:, white: 100.0, black:, kind: described_class::Target.kind("rec709-bt1886")) }
    own = [[0.64, 0.33], [0.30, 0.60], [0.15, 0.06]]
    uv = ->((x, y)) { [4 * x / (-2 * x + 12 * y + 3), 9 * y / (-2 * x + 12 * y + 3)] }
    area = ->(a, b, c) { ((b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1])).abs / 2 }
    # red half way to the middle of green and blue in u'v': half of the area is left
    red, green, blue = own.map(&uv)
    half = [0, 1].map { |at| red[at] / 2 + (green[at] + blue[at]) / 4 }
    x, y = [9 * half[0], 4 * half[1]].map { |part| part / (6 * half[0] - 16 * half[1] + 12) }
    expect(area[uv[[x, y]], green, blue] / area[red, green, blue]).to be_within(1e-9).of(0.5)
    expect([own, [[x, y], *own.drop(1)], own.reverse, [[0.68, 0.32], [0.265, 0.69], [0.15, 0.05]]].map { |primaries| reach[primaries].gamut }).to match([be_within(1e-9).of(1), be_within(1e-9).of(0.5), be_within(1e-9).of(1), a_value > 0.99])
    expect([0.0, 0.05, 0.1, 0.2].map { |black| reach[own, black].black? }).to eq([true, true, true, false])
  end

  describe "the line" do
    let(:screen) { described_class::Line::Server.new(described_class::StandIn::Screen.new({"settle" => 0.0, "black" => 0.0})) }
    let(:threads) { [] }

    before { threads << Thread.new { screen.run } }

    after { screen.stop }

    def said(address, *lines)
      socket = TCPSocket.new("127.0.0.1", address[/\d+\z/].to_i)
      lines.map { |line| socket.write("#{line}\n") && socket.gets&.strip }
    ensure
      socket.close
    end

    it "says what it is, shows codes, and tells its light" do
      expect(said(screen.address, "HELLO mordant 1", "SHOW 1 1 1", "LIGHT 0", "BYE")).to match(["OK screen 1 stand-in", "OK", /\AOK 95\.0\d+ 100\.0 108\.\d+\z/, "OK bye"])
      remote = described_class::Line::Screen.new(screen.address)
      remote.show([0.0, 1.0, 0.0])
      expect(remote.light(0.0)[1]).to be_within(0.001).of(71.517)
      expect(described_class::Line.found([screen.address, "127.0.0.1:1"])).to eq([{address: screen.address, device: "screen", name: "stand-in"}])
    end

    it "refuses what comes in the wrong order, or is none of it" do
      expect(said(screen.address, "SHOW 1 1 1", "HELLO a", "HELLO mordant 1", "SHOW 1 1", "SHOW 1 2 1", "SHOW 1 NaN 1", "READ", "LIGHT", "\xFF")).to match(
        ["NO order: say HELLO first", /NO words: HELLO/, /OK screen/, /NO words: SHOW takes three/, /NO words: SHOW/, /NO words: SHOW/, /NO words: a screen does not know "READ"/, /NO words: LIGHT/, /NO words: UTF-8/]
      )
    end

    it "tells a probe's refusals from its faults" do
      eye = described_class::Line::Server.new(described_class::StandIn::Probe.new({"floor" => 0.5, "integration" => 0.001}, screen: described_class::Line::Screen.new(screen.address)))
      threads << Thread.new { eye.run }
      probe = described_class::Line::Probe.new(eye.address)
      expect { probe.read }.to raise_error(described_class::Refused, "probe: too dark")
      address = screen.address
      screen.stop
      expect { described_class::Line::Probe.new(address) }.to raise_error(described_class::DeviceError, /nothing answers at/)
    ensure
      eye.stop
    end

    it "does not wait for a device that says nothing, nor believe one that says anything" do
      mute = TCPServer.new("127.0.0.1", 0)
      told = ["OK screen 1 odd", "OK 1 2 NaN", "OK 1 2", "what", "OK #{"1" * 2000}"]
      threads << Thread.new { mute.accept.then { |socket| told.each { |line| socket.gets && socket.write("#{line}\n") } } }
      address = "127.0.0.1:#{mute.addr[1]}"
      client = described_class::Line::Client.new(address, patience: 0.3)
      expect { client.numbers("READ") }.to raise_error(described_class::DeviceError, /not three numbers/)
      expect { client.numbers("READ") }.to raise_error(described_class::DeviceError, /not three numbers/)
      expect { client.ask("READ") }.to raise_error(described_class::DeviceError, /says "what", which is none of the protocol/)
      expect { client.ask("READ") }.to raise_error(described_class::DeviceError, /answers without end/)
      expect { described_class::Line::Client.new(address, patience: 0.2) }.to raise_error(described_class::DeviceError, /has not answered for 0\.2 s/)
      expect { described_class::Line.parse("example.org:80") }.to raise_error(Mordant::ParameterError, /an address on this machine/)
    end
  end

  it "runs a whole session on the command line, and writes a lattice and a report" do
    Dir.mktmpdir do |folder|
      path = ->(name) { File.join(folder, name) }
      File.write(path["screen.json"], {"primaries" => [[0.64, 0.33], [0.30, 0.60], [0.15, 0.06]], "white" => [0.31, 0.33], "peak" => 100.0, "black" => 0.05, "gamma" => [2.4, 2.35, 2.5], "coupling" => 0.0, "settle" => 0.2, "drift" => 0.0}.to_json)
      File.write(path["probe.json"], {"noise" => 0.002, "floor" => 0.003, "integration" => 0.1}.to_json)
      call = ->(*more) { Mordant::CommandLine.run(["calibrate", "--screen", path["screen.json"], "--probe", path["probe.json"], "--fast", "--lut", path["out.cube"], "--report", path["out.json"], *more], output: StringIO.new, complaints: @said = StringIO.new) }
      expect(call["--target", "rec709-bt1886"]).to eq(0)
      report = JSON.parse(File.read(path["out.json"]))
      %w[before after].each { |side| expect(report[side].keys).to include("de2000_mean", "de2000_max", "dl_mean", "dl_max", "readings", "reachable") }
      expect(Mordant::Lut::Cube.read(path["out.cube"]).lattice.size).to eq(17)
      expect([call["--target", "film"], @said.string]).to match([1, /target: expected/])
      File.write(path["probe.json"], "{")
      expect([call.call, @said.string]).to match([1, /probe\.json: this is not JSON/])
    end
  end

  it "writes a page of a report" do
    clock = described_class::Clock::Counted.new
    screen = described_class::StandIn::Screen.new({}, clock:)
    report = described_class::Session.new(screen:, probe: described_class::StandIn::Probe.new({}, screen:, clock:), clock:, settings: described_class::Settings.new).run.to_h
    page = Nokogiri::HTML(described_class::Page.new(JSON.parse(report.to_json), title: "Desk <1>", date: "1 May 2026").to_html)
    expect(page.css("h1").text).to eq("Desk <1>")
    expect(page.css("svg").map { |chart| chart.css("rect").size }).to eq([44, 44])
    expect(page.text).to include("Mean dE2000", format("%.2f", report[:after][:de2000_mean]))
  end
end
