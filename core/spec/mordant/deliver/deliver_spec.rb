# frozen_string_literal: true

require "spec_helper"
require "vips"

RSpec.describe Mordant::Deliver::Naming, :folder do
  let(:values) { {project: "Salt Lantern", cut: "Cut 1", shot: "1A", format: "exr-half"} }

  it "fills tokens in, with what a path can hold" do
    expect(described_class.new("{project}/{cut}/{shot}_{format}").expand(values)).to eq("Salt_Lantern/Cut_1/1A_exr-half")
    expect(described_class.new("{project}").expand(project: "../../etc")).to eq("etc")
    expect(described_class.new("{reel}").expand(reel: nil)).to eq("none")
  end

  it "refuses unknown tokens and ways out" do
    ["", "{nothing}", "/abs/{cut}", "../{cut}", "a/../../b", "a//b", "~/x", "a\\b", "a\nb"].each do |template|
      expect { described_class.new(template) }.to raise_error(Mordant::ParameterError, /name/), template.inspect
    end
    expect { described_class.new("..{shot}").expand(shot: "") }.not_to raise_error
  end

  it "stays below the root and overwrites nothing" do
    root = File.join(@folder, "delivery")
    Dir.mkdir(root)
    expect(described_class.place(root, "a/b.mp4")).to eq(File.join(File.realpath(root), "a/b.mp4"))
    File.write(File.join(root, "there"), "")
    expect { described_class.place(root, "there") }.to raise_error(Mordant::ParameterError, /not taken yet/)
    File.symlink(@folder, File.join(root, "out"))
    File.symlink("/nowhere", File.join(root, "broken"))
    ["out/x", "../x", "broken", "broken/x"].each do |path|
      expect { described_class.place(root, path) }.to raise_error(Mordant::ParameterError), path
    end
  end
end

RSpec.describe Mordant::Deliver::Programme, :folder do
  let(:reader) { Mordant::Media::Reader.new(Footage.steps(@folder, frames: 12), rate: Rational(24)) }
  let(:nothing) { Mordant::Grade::Recipe.new("steps" => []) }
  let(:timeline) do
    shot = ->(key, source, record, length, dissolve) { Mordant::Cut::Timeline::Shot.new(key:, source_in: source, record_in: record, length:, dissolve:, clip_frames: 12) }
    Mordant::Cut::Timeline.new([shot[:a, 0, 0, 4, 0], shot[:b, 6, 4, 5, 3]])
  end
  let(:programme) do
    source = described_class::Source.new(reader:, plan: Mordant::Grade::Plan.new(recipe: nothing, source: "acescct"))
    described_class.new(timeline:, sources: {a: source, b: source}, width: 64, height: 36)
  end

  def greys(first, count)
    found = []
    programme.each(first:, count:) { |frame, record| found << [record, frame.at(0, 0)[0] * 1023] }
    found
  end

  it "takes the memory of a frame back once its outputs have it, and none of what somebody keeps" do
    seen, kept = [], []
    programme.each_of([nil], first: 2, count: 4) { |(frame), _| seen << [frame.tap(&:rgb), frame.at(0, 0)[0]] }
    programme.each(first: 2, count: 4) { |frame, _| kept << frame.tap(&:rgb) }
    expect(kept.map { |frame| frame.at(0, 0)[0] }).to eq(seen.map(&:last))
    seen.each { |frame, _| expect { frame.at(0, 0) }.to raise_error(/unallocated/) }
  end

  it "delivers the cut frame by frame, dissolves mixed in working codes" do
    grey = ->(n) { 100 + 40.0 * n }
    mixed = [[4, 6], [5, 7], [6, 8]].each_with_index.map { |(from, to), k| grey[from] * (1 - (k + 1) / 4.0) + grey[to] * (k + 1) / 4.0 }
    wanted = [0, 1, 2, 3].map(&grey) + mixed + [9, 10].map(&grey)
    found = greys(0, 9)
    expect(found.map(&:first)).to eq((0..8).to_a)
    expect(found.map(&:last)).to match(wanted.map { |x| be_within(0.8).of(x) })
  end

  it "delivers a stretch as the whole has it" do
    expect(greys(5, 3)).to eq(greys(0, 9)[5, 3])
  end
end

RSpec.describe "Areas, times and mattes in a delivery", :folder do
  let(:sheet) { Mordant::Deliver::Sheet.new({"format" => "dpx-10", "view" => Mordant::Grade::View::STANDARD}, width: 64, height: 36) }
  let(:recipe) do
    matte = {"contributors" => [{"id" => "e", "kind" => "ellipse"}, {"id" => "l", "kind" => "luminance", "mode" => "subtract", "parameters" => {"low" => 0.7}}]}
    Mordant::Grade::Recipe.new("steps" => [{"id" => "a", "kind" => "average", "parameters" => {"frames" => 2}}, {"id" => "s", "kind" => "soften", "parameters" => {"size" => 0.05, "luma" => 1, "colour" => 0.5}},
      {"id" => "b", "kind" => "balance", "matte" => matte, "keys" => [{"frame" => 0, "parameters" => {"exposure" => 0}}, {"frame" => 8, "parameters" => {"exposure" => 2}}]}, {"id" => "t", "kind" => "sharpen", "parameters" => {"luma" => 1}, "matte" => matte}])
  end

  # @return [Hash{String => String}] files by name
  def made(name, *stretches)
    path = Footage.steps(@folder, frames: 10) unless File.exist?(path = File.join(@folder, "steps.mkv"))
    timeline = Mordant::Cut::Timeline.new([Mordant::Cut::Timeline::Shot.new(key: 1, source_in: 1, record_in: 0, length: 8, dissolve: 0, clip_frames: 10)])
    plan = -> { Mordant::Grade::Plan.new(recipe:, source: "acescct") }
    stretches.each do |first, count|
      source = Mordant::Deliver::Programme::Source.new(reader: Mordant::Media::Reader.new(path, rate: Rational(24)), others: {sheet.variant => Mordant::Deliver::Programme::Source.new(plan: plan.call)})
      writer = Mordant::Deliver::SequenceWriter.new(sheet, path: File.join(@folder, name, "out"), start: Mordant::Cut::Timecode.parse("01:00:00:00", Rational(24)), first: 0)
      facts = Mordant::Media::FrameFacts.new(rate: Rational(24), timecode: Mordant::Cut::Timecode.parse("01:00:00:00", Rational(24)), name: "x", written: Time.at(0))
      programme = Mordant::Deliver::Programme.new(timeline:, sources: {1 => source}, width: 64, height: 36)
      Mordant::Deliver::Pass.new(programme:, space: Mordant::Colour::WorkingSpace.default, writers: {1 => writer}, describe: ->(_) { [facts, {}] }).run(first:, count:)
    end
    Dir[File.join(@folder, name, "out", "*")].sort.to_h { |file| [File.basename(file), File.binread(file)] }
  end

  it "are the same by one worker, by three, and by one that goes on after another, bit for bit" do
    one, three, after = made("one", [0, 8]), made("three", [3, 2], [0, 3], [5, 3]), made("after", [0, 5], [0, 8])
    expect([one.size, three, after]).to eq([8, one, one])
    expect(one.values.uniq.size).to eq(8)
    bands = [0, 12, 24].map { |top| Mordant::Grade::Window.new(left: 0, top:, width: 64, height: 12) }
    allow_any_instance_of(Mordant::Grade::Plan).to receive(:bands).and_return(bands)
    expect(made("banded", [0, 8])).to eq(one)
  end
end

RSpec.describe Mordant::Deliver::Bulk, :folder do
  let(:path) { Footage.steps(@folder, frames: 10) }
  let(:start) { Mordant::Cut::Timecode.parse("01:00:00:00", Rational(24)) }
  let(:display) { Mordant::Colour::WorkingSpace.fetch("display") }

  def source(recipe, encoding: "rec709-bt1886", space: display)
    Mordant::Deliver::Programme::Source.new(reader: Mordant::Media::Reader.new(path, rate: Rational(24)), plan: Mordant::Grade::Plan.new(recipe:, source: encoding, space:))
  end

  def bulk(source, space: display, bits: 10, first: 2, count: 6)
    described_class.new(source:, output: Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD, space), bits:, first:, count:)
  end

  def review(name)
    sheet = Mordant::Deliver::Sheet.new({"format" => "h264", "view" => Mordant::Grade::View::STANDARD, "dither" => false}, width: 64, height: 36)
    Mordant::Deliver::VideoWriter.new(sheet, path: File.join(@folder, name), rate: Rational(24000, 1001), first: 0)
  end

  it "writes what the exact way writes, frame for frame" do
    graded = source(Frames.recipe(lift: [0.03, 0, 0, 0], gain: [0.9, 1, 1, 1]))
    made = bulk(graded)
    expect(made).to be_fits
    quick, slow = review("quick.mp4"), review("slow.mp4")
    told = []
    quick.draw(made, 0...6, frame: 2) { |done| told << done }
    quick.seal(0, 6)
    quick.finish(timecode: start)
    output = Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD, display)
    slow.open
    record = -1
    graded.reader.each(first: 2, count: 6, width: 64, height: 36) { |codes| slow.write(record += 1, output.run(graded.plan.run(codes)), nil) }
    slow.seal(0, 6)
    slow.finish(timecode: start)
    frames = %w[quick.mp4 slow.mp4].map do |name|
      found = []
      Mordant::Media::Reader.new(File.join(@folder, name), rate: Rational(24)).each(first: 0, count: 6, width: 64, height: 36) { |codes| found << codes.rgb[true, 700].to_a.map { |code| code * 1023 / 65_535.0 } }
      found
    end
    expect(frames[0].flatten.zip(frames[1].flatten).map { |a, b| (a - b).abs }.max).to be < 1.1 # each rounds for itself
    expect(told.last).to eq(6)
    expect(Mordant::Media::Probe.call(File.join(@folder, "quick.mp4")).to_h).to include(rate: Rational(24000, 1001), frames: 6, range: "legal")
  end

  it "is refused where a lattice would show" do
    expect(bulk(source(Frames.recipe(exposure: 0.3, saturation: 1.2), encoding: "logc3-ei800-wg3", space: Mordant::Colour::WorkingSpace.default), space: Mordant::Colour::WorkingSpace.default)).not_to be_fits
    shaded = Mordant::Grade::Recipe.new("steps" => [{"id" => "s", "kind" => "lens_shading", "parameters" => {"amount" => [1, 0, 0, 0]}}])
    expect(bulk(source(shaded))).not_to be_fits
    expect(bulk(source(Frames.recipe, encoding: "aces2065-1"))).not_to be_fits
  end

  it "leaves frames that a source has not to the exact way, and goes on where it was killed" do
    output = review("short.mp4")
    made = bulk(source(Frames.recipe(gain: [0.9, 1, 1, 1])), first: 2, count: 6)
    output.draw(made, 0...30, frame: 2)
    expect((0...30).select { |record| output.has?(record) }).to eq((0...8).to_a)
    frames = Dir.glob("#{output.folder}/g*").sort.map { |file| File.binread(file) }
    expect(frames.uniq.size).to be > 1
    [5, 7].each { |record| File.delete(File.join(output.folder, format("g%08d", record))) }
    output.draw(made, 0...8, frame: 2)
    expect(Dir.glob("#{output.folder}/g*").sort.map { |file| File.binread(file) }).to eq(frames)
    output.abandon
    expect(Dir.children(@folder)).to eq(["steps.mkv"])
  end

  it "dithers like the exact way: within a code, another noise for each frame, the same for a frame drawn again" do
    made = bulk(source(Frames.recipe(gain: [0.9, 1, 1, 1])))
    drawn = {plain: false, dithered: true, again: true}.to_h do |name, dither|
      sheet = Mordant::Deliver::Sheet.new({"format" => "h264", "view" => Mordant::Grade::View::STANDARD, "dither" => dither}, width: 64, height: 36)
      writer = Mordant::Deliver::VideoWriter.new(sheet, path: File.join(@folder, "#{name}.mp4"), rate: Rational(24), first: 0)
      writer.draw(made, ((name == :again) ? 3 : 1)...5, frame: (name == :again) ? 5 : 3)
      [name, (3...5).map { |record| Numo::Int32.cast(Numo::UInt16.from_binary(File.binread(File.join(writer.folder, format("g%08d", record))))) }]
    end
    noise = drawn[:dithered].zip(drawn[:plain]).map { |one, other| one - other }
    code = 65_535 / 1023.0
    expect(noise.map { |all| all.abs.max }).to all(be_within(1).of(code / 2))
    expect(noise.map { |all| Numo::DFloat.cast(all).mean }).to all(be_within(1.5).of(0))
    expect(noise.map { |all| Numo::DFloat.cast(all).stddev }).to all(be_within(0.5).of(code / Math.sqrt(12)))
    expect(noise[0]).not_to eq(noise[1])
    expect(drawn[:again]).to eq(drawn[:dithered])
  end
end
