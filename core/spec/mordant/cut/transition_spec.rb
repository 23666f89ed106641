# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Cut::Manner do
  it "goes straight, eased, or as was measured" do
    shares = ->(document, count) { (0...count).map { |step| described_class.new(document).share(step, count).round(6) } }
    expect(shares[{}, 3]).to eq([0.25, 0.5, 0.75])
    expect(shares[{"curve" => "eased"}, 3]).to eq([((1 - Math.sqrt(0.5)) / 2).round(6), 0.5, ((1 + Math.sqrt(0.5)) / 2).round(6)])
    measured = {"curve" => "measured", "shares" => [0.1, 0.5, 0.6]}
    expect(shares[measured, 3]).to eq([0.1, 0.5, 0.6])
    expect(shares[measured, 7]).to eq([0.05, 0.1, 0.3, 0.5, 0.55, 0.6, 0.8])
    expect(described_class.new(measured).to_h).to eq(measured)
    expect(described_class.of("curve" => "straight", "hold" => false)).to eq(described_class::PLAIN)
  end

  it "refuses what it does not know, with its path" do
    {{"curve" => "wavy"} => "manner.curve", {"curve" => "measured"} => "manner.shares", {"curve" => "measured", "shares" => [0.2, 1.5]} => "manner.shares", {"softness" => 2} => "manner.softness", {"hold" => 1} => "manner.hold", {"border" => 1} => "manner"}
      .each { |document, path| expect { described_class.new(document) }.to raise_error(Mordant::ParameterError) { |e| expect(e.path).to eq(path) } }
  end
end

RSpec.describe Mordant::Deliver::Mixing do
  include Frames

  let(:space) { Mordant::Colour::WorkingSpace.default }
  let(:dark) { flat([0.2, 0.3, 0.25]) }
  let(:light) { flat([0.7, 0.6, 0.65]) }
  let(:layer) { Mordant::Cut::Timeline::Layer.new(nil, 0, 0.25, nil) }

  def value(frame) = frame.rgb[true, 0].to_a

  it "mixes log codes, light, or what each output shows of both" do
    log, linear, display = described_class::DOMAINS.keys.map { |domain| described_class.new(domain, space).call(dark, light, layer) }
    expect(value(log)).to all(be_within(1e-6).of(0.325).or(be_within(1e-6).of(0.375).or(be_within(1e-6).of(0.35))))
    lin = ->(code) { (code <= 0.155251141552511) ? (code - 0.0729055341958355) / 10.5402377416545 : 2**(code * 17.52 - 9.72) } # ACEScct, S-2016-001
    code = ->(light) { (Math.log2(light) + 9.72) / 17.52 }
    expect(value(linear)[0]).to be_within(2e-5).of(code[0.75 * lin[0.2] + 0.25 * lin[0.7]])
    outputs = [%w[rec709-bt1886 sdr-video-1.0], %w[rec2100-pq hdr-video-1000nit-15nit-p3lim-1.1]].map { |encoding, rendering| Mordant::Grade::Output.for(Mordant::Grade::View.new(encoding:, rendering:), space) }
    outputs.each do |output|
      both = [dark, light].map { |frame| value(output.run(frame)) }
      expect(value(output.run(display))).to match(both.transpose.map { |a, b| be_within(1e-6).of(0.75 * a + 0.25 * b) })
      expect(value(output.run(log))).not_to match(both.transpose.map { |a, b| be_within(1e-3).of(0.75 * a + 0.25 * b) })
    end
  end

  it "is one picture alone at the ends, and a part of a wipe is as the whole" do
    described_class::DOMAINS.each_key do |domain|
      mixing = described_class.new(domain, space)
      wiped = ->(share, **part) { mixing.call(dark, light, Mordant::Cut::Timeline::Layer.new(nil, 0, share, Mordant::Cut::Wipe.new(1)), **part) }
      expect([value(wiped[0.0]), value(wiped[1.0])]).to match([dark, light].map { |frame| value(frame).map { |one| be_within(1e-5).of(one) } })
      window = Mordant::Grade::Window.new(left: 6, top: 2, width: 8, height: 8)
      whole = Mordant::Frame.new(Numo::SFloat.zeros(3, 320) + 0.5, width: 20, height: 16, encoding: "acescct")
      other = Mordant::Frame.new(Numo::SFloat.zeros(3, 320) + 0.2, width: 20, height: 16, encoding: "acescct")
      full = mixing.call(whole, other, Mordant::Cut::Timeline::Layer.new(nil, 0, 0.5, Mordant::Cut::Wipe.new(1)))
      part = mixing.call(*[whole, other].map { |frame| Mordant::Frame.new(frame.rgb[true, 0...64].dup, width: 8, height: 8, encoding: "acescct") }, Mordant::Cut::Timeline::Layer.new(nil, 0, 0.5, Mordant::Cut::Wipe.new(1)), window:, raster: [20, 16])
      expect(part.rgb[0, 0...8]).to eq(full.rgb[0, (2 * 20 + 6)...(2 * 20 + 14)])
    end
    expect { described_class.new("cmyk", space) }.to raise_error(Mordant::ParameterError, /log, linear, display/)
  end
end

RSpec.describe Mordant::Cut::Edit do
  def shot(key, clip, source_in, length, **more) = Mordant::Cut::Timeline::Shot.new(key:, name: key.to_s, clip:, source_in:, length:, clip_frames: 200, **more)

  def told(edit) = edit.shots.map { |one| [one.key, one.source_in, one.length, one.dissolve, one.clock] }

  let(:flat) { described_class.new([shot(:a, :film, 0, 50), shot(:b, :film, 50, 12), shot(:c, :film, 62, 40), shot(:d, :other, 5, 30)]) }

  it "lets two grades cross over a stretch that is a shot of its own, which the next one begins with then" do
    crossed = flat.cross(50, 12)
    expect(told(crossed)).to eq([[:a, 0, 50, 0, 0], [:c, 50, 52, 12, -12], [:d, 5, 30, 0, 0]])
    timeline = Mordant::Cut::Timeline.new(crossed.shots)
    expect((48..63).map { |record| timeline.layers(record).map { |layer| [layer.shot.key, layer.source_frame] } }).to eq([[[:a, 48]], [[:a, 49]], *(50..61).map { |frame| [[:a, frame], [:c, frame]] }, [[:c, 62]], [[:c, 63]]])
    expect(timeline.layers(50).last.share).to be_within(1e-9).of(1 / 13.0)
  end

  it "crosses over within a shot, at either of its ends, and over an edit" do
    expect(told(flat.cross(10, 20))).to eq([[:a, 0, 10, 0, 0], [[:new, :a], 10, 40, 20, 10], [:b, 50, 12, 0, 0], [:c, 62, 40, 0, 0], [:d, 5, 30, 0, 0]])
    expect(told(flat.cross(50, 6))[1]).to eq([:b, 50, 12, 6, 0])
    expect(told(flat.cross(40, 10))[0..1]).to eq([[:a, 0, 40, 0, 0], [:b, 40, 22, 10, -10]])
    expect(told(flat.cross(44, 12))[0..1]).to eq([[:a, 0, 44, 0, 0], [:b, 44, 18, 12, -6]])
    refused = ->(first, count, path = nil) { expect { flat.cross(first, count) }.to raise_error(Mordant::ParameterError, path) }
    refused[95, 20, /shot c: .*over an edit at which its clip goes on/]
    refused[0, 10]
    refused[102, 30]
    refused[10, 0]
    refused[500, 5, /a frame of the cut/]
  end

  it "holds the last frame where handles are missing, if that is wanted, in both directions" do
    short = [shot(:a, :x, 100, 95), shot(:b, :y, 20, 40)]
    expect { described_class.new(short).transition(:b, 12) }.to raise_error(Mordant::ParameterError, /12 frames of handle after shot a/)
    held = described_class.new(short).transition(:b, 12, manner: Mordant::Cut::Manner.of("hold" => true))
    expect((95..106).map { |record| Mordant::Cut::Timeline.new(held.shots).layers(record).first.source_frame }).to eq([195, 196, 197, 198, 199] + [199] * 7)
    back = described_class.new([shot(:a, :x, 40, 38, speed: -1.0), shot(:b, :y, 20, 40)]).transition(:b, 6, manner: Mordant::Cut::Manner.of("hold" => true))
    expect((38..43).map { |record| Mordant::Cut::Timeline.new(back.shots).layers(record).first.source_frame }).to eq([2, 1, 0, 0, 0, 0])
    expect(described_class.healed(held.shots).shots.map(&:dissolve)).to eq([0, 12])
    expect(described_class.healed(held.shots.map { |one| one.with(manner: nil) }).shots.map(&:dissolve)).to eq([0, 5])
  end

  it "keeps how a transition goes through a recut that leaves it" do
    manner = Mordant::Cut::Manner.of("curve" => "measured", "shares" => [0.2, 0.4, 0.9])
    present = described_class.new([shot(:a, :x, 0, 50), shot(:b, :y, 20, 40, dissolve: 3, manner:)]).shots
    wanted = ->(dissolve) { described_class.new([shot([:event, 0], :x, 0, 50), shot([:event, 1], :y, 20, 30, dissolve:)]).shots }
    expect([3, 4].map { |length| Mordant::Cut::Recut.new(present, wanted[length]).shots.last.manner.curve }).to eq(%w[measured straight])
  end
end

RSpec.describe Mordant::Cut::MixMeasure do
  around { |example| Dir.mktmpdir { |folder| example.run if (@folder = folder) } }

  # Mixed of the demo's moving pictures by known shares, and coded as a programme is.
  it "measures the mix of a baked dissolve, however it goes" do
    curves = [->(way) { way }, ->(way) { (1 - Math.cos(Math::PI * way)) / 2 }, ->(way) { way**0.5 }]
    [["2A", "3B", 20, 1], ["3C", "1D", 16, 2], ["1C", "2D", 8, 0]].each_with_index do |(one, other, count, curve), index|
      programme = Programmes.new.add(one, 14 + count).add(other, count + 14, into: count, first: 2, curve: curves[curve])
      reader = Mordant::Media::Reader.new(programme.write(File.join(@folder, "#{index}.mkv")))
      found = described_class.shares(reader, frames: programme.length, first: 14, count:)
      truth = (1..count).map { |frame| curves[curve].call(frame / (count + 1.0)) }
      expect(found.zip(truth).sum { |a, b| (a - b).abs } / count).to be < 0.05, [one, other].inspect
      expect(found.each_cons(2)).to all(satisfy { |a, b| b >= a })
    end
  end

  # Mixed before it was rendered, as the demo's programme is: 12 frames at 474, in log codes.
  it "finds out that a programme was not mixed in codes" do
    path = File.expand_path("../../../../demo/media/edit/salt_lantern.mov", __dir__)
    found = described_class.shares(Mordant::Media::Reader.new(path), frames: 526, first: 474, count: 12)
    expect(found.each_with_index.sum { |share, index| (share - (index + 1) / 13.0).abs } / 12).to be < 0.05
    light = Class.new(Programmes) do
      def mixed(one, other, frame, share)
        -> { ((one.call.clip(0, 255) / 255.0)**2.4 * (1 - share) + (other.call(frame).clip(0, 255) / 255.0)**2.4 * share)**(1 / 2.4) * 255.0 }
      end
    end
    programme = light.new.add("2A", 22).add("3A", 22, into: 10)
    found = described_class.shares(Mordant::Media::Reader.new(programme.write(File.join(@folder, "light.mkv"))), frames: programme.length, first: 12, count: 10)
    expect(found.each_with_index.sum { |share, index| (share - (index + 1) / 11.0).abs } / 10).to be < 0.05
  end

  it "refuses stretches without both shots, and sides that look alike" do
    programme = Programmes.new.add("1A", 30)
    reader = Mordant::Media::Reader.new(programme.write(File.join(@folder, "one.mkv")))
    expect { described_class.shares(reader, frames: 30, first: 0, count: 6) }.to raise_error(Mordant::ParameterError, /before and after it/)
    expect { described_class.shares(reader, frames: 30, first: 8, count: 22) }.to raise_error(Mordant::ParameterError, /before and after it/)
    expect { described_class.shares(reader, frames: 2000, first: 9, count: 900) }.to raise_error(Mordant::ParameterError, /at most 500 frames/)
    expect { described_class.shares(reader, frames: 30, first: 9, count: 10) }.to raise_error(Mordant::ParameterError, /that differ/)
    grey = Array.new(9) { Numo::DFloat.zeros(12) + 0.5 }
    expect { described_class.new(grey, 3, 3).check }.to raise_error(Mordant::ParameterError, /that differ/)
    expect(described_class.rising([0.1, 0.3, 0.2, 0.2, 0.9])).to eq([0.1, *[0.7 / 3] * 3, 0.9])
  end
end
