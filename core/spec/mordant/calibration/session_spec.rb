# frozen_string_literal: true

require "spec_helper"
require "tmpdir"

RSpec.describe Mordant::Calibration::Session do
  # A screen's light and a target's, written out once more and without noise.
  def shown(screen, codes)
    linear = codes.zip(screen["gamma"]).map { |code, gamma| code.clamp(0.0, 1.0)**gamma }
    k = screen.fetch("coupling", 0.0)
    coupled = linear.each_index.map { |c| linear[c] * (1 - k * (linear[c - 1] + linear[c - 2]) / 2) / (1 - k) }
    light(screen["primaries"], screen["white"], coupled.map { |part| part * (screen["peak"] - screen["black"]) }).zip(xyz(screen["white"])).map { |part, white| part + white * screen["black"] }
  end

  def wanted(codes, peak, black, white: [0.3127, 0.3290])
    high, low = peak**(1 / 2.4), black**(1 / 2.4)
    light([[0.64, 0.33], [0.30, 0.60], [0.15, 0.06]], white, codes.map { |code| (high - low)**2.4 * (code + low / (high - low))**2.4 })
  end

  def xyz(xy) = [xy[0] / xy[1], 1.0, (1 - xy[0] - xy[1]) / xy[1]]

  # SMPTE RP 177.
  def light(primaries, white, channels)
    columns = Matrix.columns(primaries.map { |xy| xyz(xy) })
    scale = columns.inv * Vector[*xyz(white)]
    (columns * Matrix.diagonal(*scale) * Vector[*channels]).to_a
  end

  def de(a, b, peak) = Mordant::Colour::Difference.ciede2000(*[a, b].map { |light| lab(light.map { |part| part / peak }) })

  # CIE 15:2004, 8.2.1.
  def lab(light)
    x, y, z = light.zip(xyz([0.3127, 0.3290])).map { |part, white| (part / white).then { |t| (t > 216.0 / 24_389) ? Math.cbrt(t) : (24_389.0 / 27 * t + 16) / 116 } }
    [116 * y - 16, 500 * (x - y), 200 * (y - z)]
  end

  def session(screen = {}, probe: {}, journal: {}, **settings)
    clock = Mordant::Calibration::Clock::Counted.new
    device = Mordant::Calibration::StandIn::Screen.new(screen, clock:)
    eye = Mordant::Calibration::StandIn::Probe.new(probe, screen: device, clock:)
    described_class.new(screen: device, probe: eye, clock:, journal:, settings: Mordant::Calibration::Settings.new(settings.transform_keys(&:to_s)))
  end

  def run(...) = session(...).then { |one| [one, one.run.to_h] }

  off = {"primaries" => [[0.655, 0.33], [0.28, 0.63], [0.15, 0.05]], "white" => [0.300, 0.318], "peak" => 100.0, "black" => 0.05, "gamma" => [2.4, 2.2, 2.6]}
  soft = {**off, "primaries" => [[0.68, 0.32], [0.265, 0.69], [0.15, 0.055]], "gamma" => [1.9, 2.1, 2.0], "white" => [0.33, 0.335], "peak" => 140.0, "black" => 0.02}
  coupled = {**off, "coupling" => 0.12}
  {"a screen with other primaries, white and gammas" => [off, 1.0, 3.0, false, 60..75], "a soft, wide one" => [soft, 1.0, 3.0, false, 60..75], "one whose channels couple" => [coupled, 2.0, 5.0, true, 150..200]}.each do |name, (screen, mean, most, couples, readings)|
    it "corrects #{name}, by its own probe and in truth" do
      made, report = run(screen, probe: {"noise" => 0.002, "floor" => 0.003, "integration" => 0.1})
      after = report[:after]
      expect(after.values_at(:de2000_mean, :de2000_max)).to match([a_value < mean, a_value < most])
      expect(report[:before][:de2000_mean]).to be > 3 * after[:de2000_mean]
      expect(report[:additivity]).to include(coupled: couples)
      expect(readings).to cover(report[:readings])
      expect(report.values_at(:reachable, :notes)).to match([true, couples ? [/couple, by 1\d\.\d %/] : []])

      lattice = made.correction.lattice
      random = Random.new(5)
      errors = [*Array.new(200) { Array.new(3) { random.rand } }, *Array.new(33) { |step| [step / 32.0] * 3 }].map do |codes|
        given = lattice.call(codes.map { |code| Numo::DFloat[code] }).map { |one| one[0] }
        de(shown(screen, given), wanted(codes, report[:peak], screen["black"]), report[:peak])
      end
      expect([errors.sum / errors.size, errors.max]).to match([a_value < mean, a_value < most])
    end
  end

  it "leaves a screen as it is that shows what it ought to" do
    made, = run({"black" => 0.0}, probe: {"noise" => 0.0, "floor" => 0.0}, target: "rec709-g2.4")
    nodes = Mordant::Lut::Lattice.nodes(17)
    expect((made.correction.lattice.data.transpose - nodes).abs.max).to be < 3e-3
    expect(made.correction.corrected(Numo::DFloat[*[[0.1, 0.5, 0.9]] * 3])[0, true].to_a).to match([0.1, 0.5, 0.9].map { |code| be_within(5e-4).of(code) })
  end

  it "tests whether channels add up instead of assuming it" do
    expect([0.0, 0.02, 0.2].map { |coupling| session({"coupling" => coupling}).tap(&:run).coupled? }).to eq([false, true, true])
  end

  it "says what a screen cannot show" do
    _, narrow = run({"primaries" => [[0.60, 0.34], [0.31, 0.57], [0.155, 0.07]]})
    expect(narrow).to include(reachable: false, notes: [a_string_matching(/shows 7\d\.\d % of the target's gamut/)])
    expect(narrow[:before]).to include(reachable: false, gamut: be_within(0.01).of(narrow[:reach][:gamut]))
    _, bright = run({"black" => 0.6})
    expect(bright).to include(reachable: false, notes: [a_string_matching(/black is 0\.\d+ cd.m2, 1 to 1\d\d of its white/)])
    expect(run({})[1]).to include(reachable: true, notes: [])
  end

  it "goes by the target, its white and its size" do
    made, report = run({"white" => [0.30, 0.31]}, white: "seen", size: 33, target: "srgb")
    expect(report[:white]).to match([be_within(0.001).of(0.30), be_within(0.001).of(0.31)])
    expect(report[:after][:de2000_mean]).to be < 1
    expect(made.lattice.size).to eq(33)
    expect(run({"primaries" => [[0.69, 0.31], [0.25, 0.70], [0.148, 0.055]], "gamma" => 2.2}, target: "p3-d65-g2.6")[1][:after].values_at(:de2000_mean, :de2000_max)).to match([a_value < 1, a_value < 3])
  end

  it "keeps reference white of a legal range, and what lies above it" do
    %w[legal legal-clipped].each do |range|
      made, report = run({"range" => range, "gamma" => [2.2, 2.4, 2.5]}, range: "legal")
      expect(report[:after].values_at(:de2000_mean, :de2000_max)).to match([a_value < 1, a_value < 3])
      white, above, black = [940, 1000, 64].map { |code| made.lattice.call([Numo::DFloat[code / 1023.0]] * 3).map { |one| one[0] * 1023 } }
      expect(white).to all(be_within(3).of(940))
      expect(above).to all(be > 985)
      expect(black).to all(be_within(3).of(64))
    end
  end

  it "finds out how long the screen takes" do
    expect([0.1, 0.8, 3.0].map { |settle| run({"settle" => settle})[1][:settling][:seconds] }).to match([be_within(0.1).of(0.1), be_within(0.15).of(0.8), be_within(0.4).of(3.0)])
    slow, fast = [3.0, 0.1].map { |settle| run({"settle" => settle, **off}) }
    expect(slow[1][:after][:de2000_mean]).to be_within(0.2).of(fast[1][:after][:de2000_mean])
    expect(slow[1][:seconds]).to be > 3 * fast[1][:seconds]
    expect { run({"settle" => 60.0}) }.to raise_error(Mordant::Calibration::DeviceError, /white does not come to rest within 30 s/)
  end

  it "tells of a screen that drifts by more than is allowed, and takes it out of the correction" do
    _, report = run({"drift" => -0.9, **off})
    expect(report[:drift]).to be_between(-0.04, -0.01)
    expect(report[:notes]).to match([/White drifted by -\d\.\d % while it was measured; 0\.5 % is allowed/])
    expect(run(off)[1][:drift].abs).to be < 0.005
  end

  it "goes on where it was left, reads nothing twice, and comes to the same" do
    whole = session(off)
    whole.run
    journal = JSON.parse(whole.journal.to_json)
    left = journal.merge("readings" => journal["readings"].first(75))
    first = session(off, journal: left)
    first.run
    expect(first.journal["readings"].first(75)).to eq(journal["readings"].first(75))
    expect(first.journal["readings"].map { |one| one.values_at("phase", "codes") }).to eq(journal["readings"].map { |one| one.values_at("phase", "codes") })
    expect(first.report.to_h[:after][:de2000_mean]).to be < 1
    expect(session(off, journal: JSON.parse(first.journal.to_json)).report.to_h[:after]).to eq(first.report.to_h[:after])
  end

  it "reads the dark as often as it needs, and leaves out what its probe refuses" do
    made, report = run({"black" => 0.001, **off.except("black")})
    expect(report[:after][:unread]).to include(codes: [0.0, 0.0, 0.0], why: "too dark")
    expect(report[:notes]).to include(/refused \d+ patches as too dark/)
    takes = made.all("before").to_h { |one| [one.codes, one.takes] }
    expect(takes[[0.2] * 3]).to be <= takes[[1.0] * 3]
    expect(report[:after][:de2000_mean]).to be < 1
    expect { run({}, probe: {"ceiling" => 50.0}) }.to raise_error(Mordant::Calibration::DeviceError, /white is too bright for it/)
    expect { run({}, probe: {"floor" => 9.0}) }.to raise_error(Mordant::Calibration::DeviceError, /cannot all be read/)
    expect { run({"peak" => 2.0}, probe: {"floor" => 9.0}) }.to raise_error(Mordant::Calibration::DeviceError, /no light/)
  end
end
