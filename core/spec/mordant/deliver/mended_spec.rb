# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Deliver::Mended do
  let(:raster) { {width: 160, height: 90} }
  let(:shots) { JSON.parse(File.read(File.join(Programmes::DEMO, "manifest.json")))["shots"].to_h { |shot| [shot["shot"], shot] } }

  def source(name, parameters)
    shot = shots.fetch(name)
    recipe = Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => "balance", "parameters" => parameters}])
    Mordant::Deliver::Programme::Source.new(reader: Mordant::Media::Reader.new(File.join(Programmes::DEMO, "media", shot["clip"])), plan: Mordant::Grade::Plan.new(recipe:, source: shot["encoding"]))
  end

  def baked(source, first: 0, count: 44) = described_class.bake(source:, output:, bits: 10, first:, count:, **raster)

  def output = Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD)

  # @return [Array] distances in codes of 10 bits of the largest channel of each pixel, and the notes
  def against_exact(source, bake, first: 0, count: 44)
    drawn, notes = [], []
    described_class.new(reader: source.reader, bake:, **raster).each(first:, count:) do |frame, note, number|
      expect(number).to eq(drawn.size)
      drawn << frame.rgb
      notes << note
    end
    off = []
    source.reader.each(first:, count:, **raster) { |codes| off << ((output.run(source.plan.run(codes)).rgb - drawn[off.size]).abs * 1023).max(axis: 0) }
    [Numo::NArray.hstack(off), notes]
  end

  {
    "1A" => {"exposure" => 1.0, "contrast" => 1.3, "lift" => [0.02, 0, 0, 0.01], "gain" => [1.05, 1.04, 1, 0.96], "saturation" => 1.25},
    "1C" => {"exposure" => 1.4, "contrast" => 1.1, "saturation" => 1.1},
    "2D" => {"exposure" => 0.2, "contrast" => 0.9, "saturation" => 0.95},
    "3A" => {"exposure" => -0.5, "contrast" => 1.2, "saturation" => 0.8, "temperature" => -10},
    "3D" => {}
  }.each do |name, parameters|
    it "is within a code of the exact pictures of #{name}, and nearly always within half, while a lattice does most of it" do
      from = source(name, parameters)
      off, notes = against_exact(from, baked(from))
      expect(off.max).to be <= 1.0
      expect((off > 0.5).count_true.fdiv(off.size)).to be <= 0.001
      expect(off.mean).to be < 0.1
      expect(notes.map(&:exact)).to all(be < 0.5)
      expect(notes.sum { |note| note.mean * (1 - note.exact) } / notes.size).to be_within(0.01).of(off.mean)
    end
  end

  it "computes all colours of cells in which it finds itself wrong" do
    from = source("1C", "exposure" => 1.4)
    bake = baked(from, count: 4)
    allow(bake).to receive(:filters).and_return("negate") # which is no grade at all
    off, notes = against_exact(from, bake, count: 1)
    expect(off.max).to be < 0.05
    expect([notes.first.exact, notes.first.worst > 100]).to eq([1.0, true])
  end

  it "draws runs of numbered frames too, and tells which of them cannot be read" do
    Dir.mktmpdir do |folder|
      Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-i", "file:#{File.join(Programmes::DEMO, "media", shots["2D"]["clip"])}", "-vf", "scale=160:90,format=gbrp10le", "-frames:v", "6", "-start_number", "86400", File.join(folder, "frame.%07d.dpx")], path: folder)
      from = source("2D", "exposure" => 0.3)
      from.reader = Mordant::Media::Reader.new(File.join(folder, "frame.[0086400-0086405].dpx"), rate: Rational(24))
      bake = baked(from, count: 6)
      off, = against_exact(from, bake, count: 6)
      expect(off.max).to be <= 1.0
      File.write(File.join(folder, "frame.0086403.dpx"), "nothing")
      seen = []
      expect { described_class.new(reader: from.reader, bake:, **raster).each(first: 0, count: 6) { |_, _, number| seen << number } }.to raise_error(Mordant::MediaError, /frame 0*86403 cannot be decoded/)
      expect(seen).to eq([0, 1, 2])
    end
  end

  it "leaves to the plan what it was never shown" do
    from = source("1A", {})
    dark = Numo::UInt16.cast(from.reader.frame(0, **raster).rgb / 4)
    bake = Mordant::Grade::FineBake.new(plan: from.plan, output:, bits: 10, seen: [dark])
    off, notes = against_exact(from, bake, count: 2)
    expect(notes.map(&:exact)).to all(be > 0.9)
    expect(off.max).to be <= 0.5
  end

  it "is not taken for what it cannot hold, nor where it would not pay" do
    from = source("1A", {})
    can = ->(one, **more) { described_class.can?(one, count: 48, width: 1920, height: 1080, **more) }
    expect(can.call(from)).to be(true)
    expect(described_class.can?(from, count: 4, width: 1920, height: 1080)).to be(false)
    shaded = Mordant::Grade::Recipe.new("steps" => [{"id" => "s", "kind" => "lens_shading", "parameters" => {"amount" => [1, 0, 0, 0]}}])
    from.plan = Mordant::Grade::Plan.new(recipe: shaded, source: "logc3-ei800-wg3")
    expect(can.call(from)).to be(false)
  end
end
