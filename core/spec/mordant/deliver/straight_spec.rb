# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Deliver::Straight do
  let(:codes) { Frames.codes(width: 251, height: 211) } # more than a tile, and no whole one
  let(:view) { Mordant::Grade::View::STANDARD }
  let(:plan) { plan_of("balance", "exposure" => 0.6, "gain" => [1.1, 1, 1, 0.9]) }

  def plan_of(kind, parameters) = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => kind, "parameters" => parameters}]), source: "logc3-ei800-wg3")

  def output(view = self.view) = Mordant::Grade::Output.new(view:)

  def coming(plan = self.plan, view = self.view, of: codes) = output(view).run(plan.coming(of))

  def sheet(view: self.view, **more) = Mordant::Deliver::Sheet.new({"format" => "h264", "view" => view}.merge(more.transform_keys(&:to_s)), width: codes.width, height: codes.height)

  [nil, Mordant::Deliver::Dither.new(86_407)].each do |dither|
    it "makes the very codes that one after the other makes#{", with noise" if dither}, and counts what is beyond" do
      picture = output.run(plan.run(codes))
      made = described_class.new.codes(coming, dither:, of: 10)
      expect(made.planes).to eq(Mordant::Media::Integers.planes(picture, 16, dither:, of: 10).to_binary)
      expect(made.beyond).to eq(Mordant::Deliver::Beyond.share(picture.rgb, size: picture.size))
    end
  end

  it "makes the very half floats, as an OpenEXR of them holds them" do
    scene = Mordant::Grade::View::MASTER
    picture = output(scene).run(plan.run(codes))
    made = described_class.new.halves(coming(plan, scene))
    halves = Mordant::Media::HalfPlanes.new(made.planes, width: codes.width, height: codes.height, encoding: picture.encoding)
    exr = Mordant::Media::EXR.new(primaries: Mordant::Colour::Primaries::AP0, rate: Rational(24))
    expect(exr.encode(halves)).to eq(exr.encode(picture))
    expect(made.beyond).to eq(Mordant::Deliver::Beyond.share(picture.rgb, size: picture.size, float: true)).and be > 0
  end

  it "counts pixels beyond the codes, of a picture whose share is known" do
    flat = Mordant::Media::Codes.new(Numo::UInt16.new(3, codes.rgb.shape[1]).fill(60_000), width: codes.width, height: codes.height)
    flat.rgb[true, 0...(flat.width * flat.height / 4)] = 0 # black stays within
    bright = plan_of("balance", "exposure" => 1.0)
    bare = Mordant::Grade::View.new(encoding: "rec709-bt1886") # nothing holds light to white
    expect(described_class.new.codes(coming(bright, bare, of: flat), dither: nil, of: 10).beyond).to be_within(1e-4).of(0.75)
  end

  it "takes with care what is no number on the way" do
    straight, chain = described_class.new, plan.chain
    nothing = Mordant::Pointwise::Curve.new(->(x) { Colour::Piecewise.select(x > 0.6, x * Float::NAN, x) }, domain: :log)
    stub_const("Colour::Piecewise", Mordant::Colour::Piecewise)
    frame = coming.then { |one| Mordant::Grade::Coming.new(one.codes, [chain, Mordant::Pointwise::Chain.new([nothing])], width: one.width, height: one.height, encoding: one.encoding) }
    expect(straight.codes(frame, dither: nil, of: 10).planes).to eq(Mordant::Media::Integers.planes(frame, 16).to_binary)
  end

  it "leaves to others what is not made pixel by pixel, what something is drawn over, light that is measured, and what exists" do
    expect(described_class.can?(coming, sheet)).to be(true)
    soft = plan_of("soften", "luma" => 0.5)
    expect(described_class.can?(coming(soft), sheet)).to be(false)
    expect(described_class.can?(coming.tap(&:rgb), sheet)).to be(false)
    drawn = [{mask: 1.9}, {safe: [0.9]}, {burns: [{"text" => "x", "x" => 0, "y" => 0, "size" => 0.1}]}, {width: 320}].map { |more| sheet(**more) }
    expect(drawn.map { |one| described_class.can?(coming, one) }).to eq([false] * 4)
    pq = Mordant::Grade::View.new(encoding: "rec2100-pq", rendering: "hdr-video-1000nit-15nit-p3lim-1.1")
    expect(described_class.can?(coming(plan, pq), sheet(view: pq))).to be(false)
  end

  it "says that it cannot where an operation cannot be recorded" do
    hlg = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => []), source: "rec2100-hlg-1000nit")
    expect(described_class.new.codes(coming(hlg), dither: nil, of: 10)).to be_nil
  end
end

RSpec.describe Mordant::Grade::Coming do
  let(:codes) { Frames.codes }
  let(:plan) { Mordant::Grade::Plan.new(recipe: Frames.recipe(exposure: 0.5), source: "logc3-ei800-wg3") }
  let(:output) { Mordant::Grade::Output.new(view: Mordant::Grade::View::STANDARD) }

  it "is the picture that would have been made at once, whenever its pixels are asked for" do
    expect(plan.coming(codes).rgb).to eq(plan.run(codes).rgb)
    seen = output.run(plan.coming(codes))
    expect([seen.coming?, seen.encoding, seen.size]).to eq([true, "rec709-bt1886", 64 * 48])
    expect(seen.rgb).to eq(output.run(plan.run(codes)).rgb)
    expect(seen.coming?).to be(false)
  end

  it "is seen through an output as it is once it has been made" do
    made = plan.coming(codes).tap(&:rgb)
    expect(output.run(made)).to be_an_instance_of(Mordant::Frame).and(have_attributes(rgb: output.run(plan.run(codes)).rgb))
  end

  it "is made at once where pixels depend on others" do
    soft = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => "soften", "parameters" => {"luma" => 0.5}}]), source: "logc3-ei800-wg3")
    expect(soft.coming(codes)).to be_an_instance_of(Mordant::Frame)
  end
end

RSpec.describe Mordant::Deliver::Pass, :folder do
  let(:codes) { Frames.codes(width: 160, height: 120) }
  let(:view) { Mordant::Grade::View::STANDARD }
  let(:space) { Mordant::Colour::WorkingSpace.default }

  def writer(format)
    sheet = Mordant::Deliver::Sheet.new({"format" => format, "view" => view}, width: 160, height: 120)
    Mordant::Deliver::VideoWriter.new(sheet, path: File.join(@folder, "#{format}#{sheet.format.extension}"), rate: Rational(24), first: 0)
  end

  # @return [Array<Integer>] how often the source was graded, and an output made of it as a picture
  def worked(writers, kind, parameters)
    plan = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => kind, "parameters" => parameters}]), source: "logc3-ei800-wg3")
    times = [0, 0]
    allow(plan.sections.first.chain).to receive(:from_codes).and_wrap_original { |made, *all| made.call(*all).tap { times[0] += 1 } }
    allow(Mordant::Grade::Output.for(view, space).chain).to receive(:call).and_wrap_original { |made, *all| made.call(*all).tap { times[1] += 1 } }
    programme = instance_double(Mordant::Deliver::Programme)
    allow(programme).to receive(:each_of) { |&block| block.call([plan.coming(codes)], 0) }
    described_class.new(programme:, space:, writers: writers.each_with_index.to_h { |one, at| [at, one] }, describe: ->(_) { [nil, {}] }).run(first: 0, count: 1)
    expect(writers.map { |one| one.has?(0) }).to all(be(true))
    times
  end

  it "makes a single output without pictures, and else each picture once, however many outputs there are" do
    expect(worked([writer("h264")], "balance", "exposure" => 0.5)).to eq([0, 0])
    expect(worked([writer("ffv1")], "soften", "luma" => 0.5)).to eq([1, 1])
    expect(worked([writer("av1"), writer("h264-8")], "balance", "exposure" => 0.5)).to eq([1, 1])
  end
end
