# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Match::Proposal do
  let(:space) { Mordant::Colour::WorkingSpace.default }
  let(:manifest) { JSON.parse(File.read(File.expand_path("../../../../demo/manifest.json", __dir__))) }

  def working(name, width: 240, height: 135)
    shot = manifest["shots"].find { |one| one["shot"] == name }
    reader = Mordant::Media::Reader.new(File.expand_path("../../../../demo/media/#{shot["clip"]}", __dir__), rate: 24r, range: "legal")
    codes = reader.frame(shot["in"] + shot["for"] / 2, width:, height:)
    Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => []), source: shot["encoding"]).run(codes)
  end

  # Looked for once in each picture.
  def points(frame) = (@points ||= {}.compare_by_identity)[frame] ||= Mordant::Match::Points.new(frame, space:)

  def proposal(hero, frame, **more) = described_class.new(hero: points(hero), picture: points(frame), **more)

  # A picture with its light multiplied, channel by channel, in stops, and noise.
  def altered(frame, stops: [0, 0, 0], noise: 0.0)
    Numo::NArray.srand(5)
    light = space.transfer.decode(Numo::DFloat.cast(frame.rgb)) * Numo::DFloat[*stops.map { |stop| 2.0**stop }].reshape(3, 1)
    light += Numo::DFloat.new(*light.shape).rand_norm * noise * Numo::NMath.sqrt(light.abs)
    frame.with(Numo::SFloat.cast(space.transfer.encode(light)))
  end

  def cropped(frame, columns, rows)
    part = frame.rgb.reshape(3, frame.height, frame.width)[true, rows, columns].dup
    Mordant::Frame.new(part.reshape(3, rows.size * columns.size), width: columns.size, height: rows.size, encoding: frame.encoding)
  end

  let(:hero) { working("1A") }

  it "changes nothing of a shot that is matched to itself" do
    expect(proposal(hero, hero).shift).to eq([0.0, 0.0, 0.0])
    expect(proposal(hero, hero).parameters).to eq("exposure" => 0.0, "temperature" => 0.0, "tint" => 0.0)
  end

  it "takes back what was done to a picture" do
    [[-1.0, -1.0, -1.0], [0.4, 0.0, -0.4], [0.6, 0.9, 0.5]].each do |stops|
      red, green, blue = stops
      shift = proposal(hero, altered(hero, stops:)).shift
      luminance = Math.log2(stops.zip(space.luminance_weights).sum { |stop, weight| weight * 2.0**stop })
      expect(shift).to match([be_within(0.1).of(-luminance), be_within(0.03).of(blue - red), be_within(0.03).of((red + blue) / 2 - green)])
    end
  end

  it "is stable under noise and another framing" do
    dark = altered(hero, stops: [-0.8, -1.0, -1.3])
    noisy = altered(hero, stops: [-0.8, -1.0, -1.3], noise: 0.02)
    inside = cropped(dark, 30...210, 10...125)
    clean = proposal(hero, dark).shift
    [noisy, inside].each do |frame|
      expect(proposal(hero, frame).shift.zip(clean).map { |a, b| (a - b).abs }).to match([be < 0.12, be < 0.06, be < 0.05])
    end
  end

  it "says how much more alike they are" do
    before, after = proposal(hero, altered(hero, stops: [-1.5, -1.5, -1.5])).overlaps
    expect(after).to be > 0.9
    expect(before).to be < after - 0.2
  end

  it "gives numbers an ordinary Balance takes, and refuses what it cannot judge" do
    expect(Mordant::Steps::Balance.new(proposal(hero, working("1C")).parameters).exposure).to be > 1.0
    expect { proposal(hero, hero, skin: 2) }.to raise_error(Mordant::ParameterError, /skin/)
    black = Frames.flat([0.08, 0.08, 0.08], width: 40, height: 40)
    expect { points(black) }.to raise_error(Mordant::ParameterError, /with light in them/)
  end

  it "weighs skin more when it is told to" do
    expect(proposal(hero, working("1B"), skin: 1.0).shift.map(&:abs)).to all(be < 0.3)
  end

  # What the cameras did wrong is in the demo's manifest. Measured: what is left of exposure
  # 0.05 stops in the median (at most 0.22), of warmth 0.06, of tint 0.02.
  it "removes most of every known error of exposure and white balance, within the scenes of the demo" do
    card = lambda do |shot|
      encoding = Mordant::Colour.encoding(shot["encoding"])
      camera = encoding.transfer.decode(Mordant::Colour::Conversion.new(from: "acescg", to: encoding.id).chain.exact(Numo::DFloat[[0.18], [0.18], [0.18]]))
      wrong = Numo::DFloat[*shot["truth"]["white"]].reshape(3, 1) * 2.0**shot["truth"]["exposure"]
      red, green, blue = Mordant::Colour::Conversion.new(from: encoding.id, to: "acescg").chain.exact(encoding.transfer.encode(camera * wrong)).to_a.flatten
      luminance = [red, green, blue].zip(space.luminance_weights).sum { |light, weight| light * weight }
      [Math.log2(luminance / 0.18), Math.log2(red / blue), Math.log2(green) - (Math.log2(red) + Math.log2(blue)) / 2]
    end
    picture = Hash.new { |known, name| known[name] = working(name) }
    truth = manifest["shots"].to_h { |shot| [shot["shot"], card[shot]] }
    left, known = [%w[1A 1B], %w[1A 1C], %w[1A 1D], %w[2A 2B], %w[2A 2C], %w[2A 2D], %w[3B 3A], %w[3B 3C]].map do |one, other|
      wanted = truth[one].zip(truth[other]).map { |a, b| a - b }
      found = proposal(picture[one], picture[other]).shift
      [found.zip(wanted).map { |a, b| (a - b).abs }, wanted.map(&:abs)]
    end.transpose
    median = ->(rows, axis) { rows.map { |row| row[axis] }.sort.then { |list| (list[3] + list[4]) / 2 } }
    expect(Array.new(3) { |axis| median[left, axis] }).to match([be < 0.1, be < 0.1, be < 0.04])
    left.zip(known).each { |rest, error| expect(rest[0]).to be < [error[0] / 2, 0.3].max }
  end
end
