# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Cut::Changes, :folder do
  # A picture whose columns have moved, as when the camera is swung round.
  def swung(picture, by) = picture[true, Array.new(Programmes::WIDTH) { |x| (x + by) % Programmes::WIDTH }, true].dup

  # How many of some changes are among others: cuts to the frame, what takes time within three at both ends.
  def share(some, others)
    near = ->(a, b) { a["kind"] == b["kind"] && ((a["kind"] == "cut") ? a["frame"] == b["frame"] : [0, a["length"]].zip([0, b["length"]]).all? { |x, y| (a["frame"] + x - b["frame"] - y).abs <= 3 }) }
    some.count { |one| others.any? { |other| near[one, other] } } / some.size.to_f
  end

  let(:programme) do
    Programmes.new
      .add("1A", 40).add("1B", 34).add("1C", 46, into: 16).add("2A", 30)
      .add("2B", 30) { |picture, frame| frame.between?(9, 10) ? picture * 0.3 + 180 : picture } # two frames of a flash
      .add("1D", 40) { |picture, frame| swung(picture, [frame - 12, 0].max.clamp(0, 9) * 26) } # a whip pan
      .add("3A", 50, into: 24).fade("3D", 36, down: 8, hold: 4, up: 6).add("2C", 36, into: 12)
      .add("2D", 36) { |picture, frame| (frame.between?(14, 24) && frame.even?) ? picture * 0.2 : picture } # a strobe
      .add("3B", 40).fade("1A", 36, down: 10, hold: 0, up: 10, level: 255.0).add("1B", 9).add("1C", 7).add("2A", 24)
  end

  it "finds every cut, dissolve and fade, and takes neither flashes nor fast movement for one" do
    path = programme.write(File.join(@folder, "programme.mp4"))
    output = StringIO.new
    expect(Mordant::CommandLine.run(["cuts", path], output:)).to eq(0)
    answer = JSON.parse(output.string)
    expect([answer.keys, answer["rate"], answer["frames"]]).to eq([%w[rate frames changes], "24/1", programme.length])
    of = ->(list, kind) { list.select { |change| change["kind"] == kind } }
    %w[cut dissolve fade].each do |kind|
      truth, found = of[programme.truth, kind], of[answer["changes"], kind]
      expect([kind, share(truth, found), share(found, truth)]).to eq([kind, 1.0, 1.0]), "#{kind}: #{truth} found as #{found}"
    end
    whole = described_class.of(path).map(&:to_h)
    stub_const("Mordant::Cut::Changes::PART", 300)
    expect(described_class.of(path).map(&:to_h)).to eq(whole) # however it is divided
  end

  it "finds what is true of the demo's flat programme" do
    truth = JSON.parse(File.read(File.join(Programmes::DEMO, "edit.json")))["programme"]
    found = described_class.of(File.join(Programmes::DEMO, truth["file"])).map(&:to_h)
    expect([share(truth["changes"], found), share(found, truth["changes"])]).to eq([1.0, 1.0]), found.inspect
  end

  it "finds nothing in a still, and says of a file that is none what is wrong" do
    path = Programmes.new.add("1A", 30) { |_, frame| Numo::SFloat.new(Programmes::HEIGHT, Programmes::WIDTH, 3).fill(40 + frame) }.write(File.join(@folder, "grey.mp4"))
    expect(described_class.of(path)).to eq([])
    File.write(File.join(@folder, "x.mp4"), "none")
    expect { described_class.of(File.join(@folder, "x.mp4")) }.to raise_error(Mordant::MediaError, /x\.mp4/)
  end
end

RSpec.describe Mordant::Cut::Changes::Thumbs, :folder do
  # Each frame with whether it was decoded.
  def frames(path) = [].tap { |list| described_class.each(path) { |thumb, known| list << [thumb, known] } }

  it "decodes what others lean on, of a large video, and puts the rest on a line between" do
    path = File.join(@folder, "large.mp4")
    system("ffmpeg", "-v", "error", "-y", "-f", "lavfi", "-i", "mandelbrot=s=1920x1080:r=24,trim=end_frame=30", "-c:v", "libx264", "-preset", "ultrafast", "-bf", "3", "-b_strategy", "0", "-pix_fmt", "yuv420p", path, exception: true)
    some = frames(path)
    stub_const("#{described_class}::LARGE", Float::INFINITY)
    all = frames(path)
    expect([some.size, all.size, all.map(&:last).uniq]).to eq([30, 30, [true]])
    known = some.each_index.select { |frame| some[frame].last }
    expect(known.size).to be_between(6, 15)
    expect(known.map { |frame| (Numo::SFloat.cast(some[frame].first) - Numo::SFloat.cast(all[frame].first)).abs.mean }.max).to be < 1.5
    a, b = known[1..].each_cons(2).find { |from, to| to - from > 1 }
    middle = (Numo::SFloat.cast(some[a].first) * (b - a - 1) + Numo::SFloat.cast(some[b].first)) / (b - a)
    expect((Numo::SFloat.cast(some[a + 1].first) - middle).abs.max).to be <= 1
  end

  it "decodes all where frames lean on each other over larger gaps" do
    path = File.join(@folder, "gaps.mp4")
    system("ffmpeg", "-v", "error", "-y", "-f", "lavfi", "-i", "testsrc2=s=1920x1080:r=24,trim=end_frame=30", "-c:v", "libx264", "-preset", "ultrafast", "-bf", "15", "-b_strategy", "0", "-pix_fmt", "yuv420p", path, exception: true)
    expect(frames(path).then { |list| [list.size, list.drop(1).map(&:last).uniq] }).to eq([30, [true]])
  end
end
