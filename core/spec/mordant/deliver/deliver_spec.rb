# frozen_string_literal: true

require "spec_helper"
require "vips"

RSpec.describe Mordant::Deliver::Naming, :folder do
  let(:values) { {project: "Salt Lantern", cut: "Cut 1", shot: "1A", kind: "exr-ap0"} }

  it "fills tokens in, with what a path can hold" do
    expect(described_class.new("{project}/{cut}/{shot}_{kind}").expand(values)).to eq("Salt_Lantern/Cut_1/1A_exr-ap0")
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

RSpec.describe Mordant::Deliver::Kind, :folder do
  let(:start) { Mordant::Cut::Timecode.parse("01:00:00:00", Rational(24)) }

  def open(id, name, **more)
    kind = described_class.fetch(id)
    kind.new(described_class::Job.new(path: File.join(@folder, name), width: 64, height: 36, rate: Rational(24), start:, reel: "H014", **more))
  end

  it "writes an OpenEXR sequence numbered by timecode, and goes on where it was interrupted" do
    output = open("exr-ap0", "seq")
    2.times { |n| output.write(Frames.flat([0.18, 0.2, 4.0], width: 64, height: 36, encoding: "aces2065-1"), n) }
    output.close
    expect(Dir.children(File.join(@folder, "seq")).sort).to eq(%w[seq.0086400.exr seq.0086401.exr])
    expect(Vips::Image.new_from_file(File.join(@folder, "seq/seq.0086400.exr")).getpoint(3, 3).first(3)).to match([be_within(1e-4).of(0.18), be_within(1e-4).of(0.2), 4.0])
    expect { open("exr-ap0", "seq") }.to raise_error(Errno::EEXIST)
    expect(open("exr-ap0", "seq", resume: true).finished_frames).to eq(2)
  end

  it "writes a review copy whose tags and decoded pixels agree with the view" do
    output = open("review-h264", "review.mp4")
    view = Mordant::Grade::Output.for(output.class.view)
    frame = view.run(Frames.flat([0.52, 0.42, 0.36], width: 64, height: 36))
    6.times { |n| output.write(frame, n) }
    output.close
    path = File.join(@folder, "review.mp4")
    stream = JSON.parse(Mordant::Media::Command.run(%W[ffprobe -v error -print_format json -show_streams #{path}], path:))["streams"].first
    expect(stream).to include("codec_name" => "h264", "pix_fmt" => "yuv420p10le", "color_range" => "tv", "color_space" => "bt709",
      "color_transfer" => "bt709", "color_primaries" => "bt709", "nb_frames" => "6", "r_frame_rate" => "24/1")
    decoded = Mordant::Media::Reader.new(path, rate: Rational(24)).frame(3, width: 64, height: 36).frame(encoding: "rec709-bt1886")
    expect((decoded.at(20, 20) - frame.at(20, 20)).abs.max).to be < 2.0 / 1023
    expect(Dir.children(@folder)).to eq(["review.mp4"])
  end

  it "leaves nothing half written, and says what the encoder died of" do
    output = open("review-h264", "gone.mp4")
    output.write(Frames.flat([0.5] * 3, width: 64, height: 36), 0)
    output.abandon
    broken = open("review-h264", "no/such/../x.mp4").tap { |one| one.job.width = -1 }
    expect do
      broken.write(Frames.flat([0.5] * 3, width: 64, height: 36), 0)
      broken.close
    end.to raise_error(Mordant::MediaError, /x\.mp4/)
    expect(Dir.glob(File.join(@folder, "**/*"), File::FNM_DOTMATCH).select { |path| File.file?(path) }).to be_empty
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

  def review(name) = Mordant::Deliver::Kind.fetch("review-h264").new(Mordant::Deliver::Kind::Job.new(path: File.join(@folder, name), width: 64, height: 36, rate: Rational(24000, 1001), start:))

  it "writes what the exact way writes, frame for frame" do
    graded = source(Frames.recipe(lift: [0.03, 0, 0, 0], gain: [0.9, 1, 1, 1]))
    made = bulk(graded)
    expect(made).to be_fits
    quick, slow = review("quick.mp4"), review("slow.mp4")
    told = []
    quick.bulk(made, 6) { |done| told << done }
    quick.close
    output = Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD, display)
    graded.reader.each(first: 2, count: 6, width: 64, height: 36) { |codes| slow.write(output.run(graded.plan.run(codes)), 0) }
    slow.close
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

  it "says when a source ends early, and leaves nothing" do
    output = review("short.mp4")
    made = bulk(source(Frames.recipe(gain: [0.9, 1, 1, 1])), first: 2, count: 6)
    expect { output.bulk(made, 30) { nil } }.to raise_error(Mordant::MediaError, /ends 22 frames early/)
    output.abandon
    expect(Dir.children(@folder)).to eq(["steps.mkv"])
  end
end
