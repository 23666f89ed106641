# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Rendition::Statistics do
  def statistics(course, every: 6, **more) = described_class.new(frames: course.size * every, every:, course:, active: nil, reach: {"bt709" => [1.0] * 3, "p3-d65" => [0.9] * 3}, **more)

  def pq(nits) = Mordant::Colour::Transfer::PQ.encode(Numo::DFloat[nits / 100.0])[0]

  describe "followed" do
    let(:rate) { Rational(24) }
    let(:ramp) { statistics(Array.new(80) { |n| [0.01, 10.0, 100.0 * 10**(n / 79.0)] }) }

    it "goes up a ramp without a step, and is never below the frame's own level" do
      tops = (0...480).map { |frame| ramp.levels_at(frame, rate).greatest }
      expect(tops.each_cons(2).map { |a, b| b - a }).to all(be >= -1e-6)
      steps = tops.map { |top| pq(top) }.each_cons(2).map { |a, b| (b - a).abs }
      whole = pq(1000.0) - pq(100.0)
      expect(steps.max).to be < whole / 480 * 6 * 1.6 # a row is six frames
      expect(tops.each_with_index.all? { |top, frame| top >= ramp.course[frame / 6].last - 1e-6 }).to be true
      expect(tops.first).to be < 300.0
      expect(ramp.levels.greatest).to be_within(1e-9).of(1000.0)
    end

    it "does not pump with what flickers, and comes and goes slowly with a flash" do
      flicker = statistics(Array.new(80) { |n| [0.01, 10.0, n.even? ? 200.0 : 400.0] })
      expect((0...480).map { |frame| flicker.levels_at(frame, rate).greatest.round(6) }.uniq).to eq([400.0])
      flash = statistics(Array.new(80) { |n| [0.01, 10.0, (n == 40) ? 900.0 : 200.0] })
      tops = (0...480).map { |frame| pq(flash.levels_at(frame, rate).greatest) }
      expect(tops.max).to be_within(1e-9).of(pq(900.0))
      expect(tops.each_cons(2).map { |a, b| (b - a).abs }.max).to be < (pq(900.0) - pq(200.0)) / 16
      expect(tops.first).to be_within(1e-9).of(pq(200.0))
    end
  end

  it "is what it was when read again, and refuses what cannot be, by name" do
    document = JSON.parse(statistics([[0.1, 2.0, 50.0], [0.2, 3.0, 60.0]]).to_h.to_json)
    expect(described_class.read(document).to_h).to eq(document)
    {{"frames" => 0} => "frames", {"course" => [[1, 2, 3]]} => "course", {"course" => [[3, 2, 1], [1, 2, 3]]} => "course[0]", {"course" => [[1, 2, Float::NAN], [1, 2, 3]]} => "course[0]", {"active" => [0, 0, 1]} => "active",
     {"reach" => {"bt709" => [1]}} => "reach", {"more" => 1} => ""}.each do |wrong, path|
      expect { described_class.read(document.merge(wrong)) }.to raise_error(Mordant::ParameterError) { |error| expect(error.path).to eq(["statistics", path].reject(&:empty?).join(".")) }
    end
  end

  describe Mordant::Rendition::Gauge do
    let(:plain) { Mordant::Pointwise::Chain.new([]) }
    let(:gauge) { described_class.new(plain, plain) }

    # PQ codes of known light, as 16-bit codes.
    def codes(nits) = Numo::UInt16.cast(Mordant::Colour::Transfer::PQ.encode(Numo::DFloat.cast(nits) / 100) * 65_535 + 0.5)

    it "reads least, mean and greatest of the brightest of three, but for one pixel in ten thousand" do
      nits = Numo::DFloat.zeros(3, 200 * 100) + 5.0
      nits[1, 0...40] = 800.0 # forty of twenty thousand
      nits[0, 40...41] = 4000.0 # one
      nits[true, 100...200] = 0.02
      (least, mean, greatest), = gauge.read(codes(nits), codes(nits), 200, 100, nil)
      expect(least).to be_within(0.001).of(0.02)
      expect(greatest).to be_within(1.0).of(800.0)
      expect(mean).to be_within(1.0).of(nits.max(axis: 0).mean)
    end

    it "finds bars of the picture, and reads what lies between them" do
      nits = Numo::DFloat.zeros(3, 100, 200)
      nits[true, 12...88, true] = Numo::DFloat.new(3, 76, 200).rand * 50 + 20
      found = codes(nits.reshape(3, 200 * 100))
      active = gauge.active(found, 200, 100)
      expect(active).to eq([0.0, 0.12, 1.0, 0.76])
      expect(gauge.read(found, found, 200, 100, active)[0][0]).to be > 15.0
      expect(gauge.active(codes(Numo::DFloat.new(3, 200 * 100).rand * 50 + 1), 200, 100)).to be_nil
    end

    it "tells how far colours reach out of smaller gamuts" do
      to_wide = Mordant::Pointwise::Chain.new([Mordant::Pointwise::Matrix.new(Mordant::Colour::Primaries::P3_D65.to(Mordant::Colour::Primaries::REC2020))])
      wide = to_wide.exact(Numo::DFloat.zeros(3, 127 * 40).tap { |light| light[1, true] = 0.6 }) * 100
      _, reach = gauge.read(codes(wide.clip(0.0, nil)), codes(wide.clip(0.0, nil)), 127, 40, nil)
      expect(reach["p3-d65"].max).to be_within(0.01).of(1.0)
      expect(reach["bt709"].max).to be > 1.1
    end
  end
end
