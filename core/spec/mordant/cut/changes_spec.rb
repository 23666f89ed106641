# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Cut::Changes, :folder do
  # A picture whose columns have moved, as when the camera is swung round.
  def swung(picture, by) = picture[true, Array.new(Programmes::WIDTH) { |x| (x + by) % Programmes::WIDTH }, true].dup

  # A wide soft edge between two colours, that turns by a degree in each frame.
  def light(frame, colours = {150 => 40, 90 => 110, -60 => 160})
    across, down = [Programmes::WIDTH, Programmes::HEIGHT].map { |edge| Numo::SFloat.new(edge).seq / edge - 0.5 }
    place = (across.reshape(1, Programmes::WIDTH) * Math.cos(frame * Math::PI / 180) + down.reshape(Programmes::HEIGHT, 1) * Math.sin(frame * Math::PI / 180) + 0.5).clip(0.0, 1.0)
    Numo::SFloat.zeros(Programmes::HEIGHT, Programmes::WIDTH, 3).tap do |picture|
      colours.each_with_index { |(rise, low), channel| picture[true, true, channel] = place * rise + low }
    end
  end

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
    stub_const("Mordant::Cut::Changes::PART", 300)
    expect(described_class.of(path).map(&:to_h)).to eq(answer["changes"]) # however it is divided
  end

  it "finds a cut among frames of a large video that others do not lean on" do
    programme = Programmes.new.add("1A", 31).add("2B", 30).add("1C", 34, into: 12).add("3A", 24)
    path = programme.write(File.join(@folder, "large.mp4"), arguments: ["-vf", "scale=1920:1080", "-c:v", "libx264", "-preset", "ultrafast", "-bf", "3", "-b_strategy", "0", "-sc_threshold", "0", "-pix_fmt", "yuv420p"])
    found = described_class.of(path).map(&:to_h)
    expect([share(programme.truth, found), share(found, programme.truth)]).to eq([1.0, 1.0]), found.inspect

    # where the frames about it are damaged, a cut is told where the new shot is first seen
    allow_any_instance_of(Mordant::Media::Reader).to receive(:each).and_raise(Mordant::MediaError.new(path, "frame 30 cannot be decoded"))
    cuts = described_class.of(path).select { |change| change.kind == "cut" }.map(&:frame)
    expect([31, 83].map { |truth| cuts.count { |frame| frame.between?(truth, truth + 3) } }).to eq([1, 1]), cuts.inspect
  end

  it "takes no slow movement of a camera for a dissolve, and no flash beside a cut away from it" do
    crossed = ->(by) { ->(picture, frame) { swung(picture, frame * by) } }
    turned = ->(_, frame) { light(frame) } # soft light that turns, whose ways are nearly straight
    coloured = ->(_, frame) { light(frame + 60, {40 => 200, 60 => 20, 80 => 10}) } # lies alike, in other colours
    programme = Programmes.new.add("1A", 40, &crossed[4]).add("2B", 44, &crossed[2]).add("1C", 60, &turned).add("1D", 40, &coloured)
      .add("2C", 40) { |picture, frame| (frame == 3) ? picture * 0.3 + 180 : picture } # a flash soon after the cut
      .add("3A", 40, into: 14, &crossed[3])
    path = programme.write(File.join(@folder, "moving.mp4"))
    found = described_class.of(path).map(&:to_h)
    expect([share(programme.truth, found), share(found, programme.truth)]).to eq([1.0, 1.0]), found.inspect
  end

  it "takes a lamp that is lit in a shot, or goes out, for no dissolve" do
    held = ->(picture, frame) { swung(picture, (frame * 7) % 4 - 2) } # by hand
    lit = Programmes.new.add("1A", 40).add("2D", 110, &held).add("1D", 60, into: 20)
    found = described_class.of(lit.write(File.join(@folder, "lit.mp4"))).map(&:to_h)
    expect([share(lit.truth, found), share(found, lit.truth)]).to eq([1.0, 1.0]), found.inspect
  end

  it "takes a lamp that is lit at once for no cut" do
    lit = ->(picture, frame) { (frame < 20) ? picture * (Numo::SFloat.new(1, Programmes::WIDTH, 1).seq / Programmes::WIDTH * 0.3) : picture }
    programme = Programmes.new.add("1A", 40).add("1B", 44, &lit).add("2A", 30)
    found = described_class.of(programme.write(File.join(@folder, "lamp.mp4"))).map(&:to_h)
    expect([share(programme.truth, found), share(found, programme.truth)]).to eq([1.0, 1.0]), found.inspect
  end

  it "looks between the bars about a picture of another shape" do
    programme = Programmes.new.add("1A", 40).add("2C", 40, into: 16).add("3A", 44, into: 20).fade("3D", 36, down: 8, hold: 2, up: 6, level: 255.0).add("1B", 30)
    ["crop=320:134,pad=320:180:0:23", "scale=240:180,pad=320:180:40:0"].each_with_index do |bars, number|
      path = programme.write(File.join(@folder, "#{number}.mp4"), arguments: ["-vf", bars, "-c:v", "libx264", "-preset", "veryfast", "-crf", "20", "-pix_fmt", "yuv420p"])
      found = described_class.of(path).map(&:to_h)
      expect([share(programme.truth, found), share(found, programme.truth)]).to eq([1.0, 1.0]), found.inspect
    end
  end

  it "finds dissolves that are eased, from where they begin" do
    eased = ->(way) { (1 - Math.cos(Math::PI * way)) / 2 }
    programme = Programmes.new.add("1A", 50).add("2C", 60, into: 24, curve: eased).add("3A", 50, into: 18, curve: eased).add("1D", 50, into: 24)
    found = described_class.of(programme.write(File.join(@folder, "eased.mp4"))).map(&:to_h)
    expect([share(programme.truth, found), share(found, programme.truth)]).to eq([1.0, 1.0]), found.inspect
  end

  it "finds dissolves between shots that are pushed into, and quick fades one soon after the other, with all of their length" do
    pushed = lambda do |by|
      lambda do |picture, frame|
        rows, columns = [Programmes::HEIGHT, Programmes::WIDTH].map { |edge| Array.new(edge) { |at| ((at - edge / 2.0) / (1 + by * frame) + edge / 2.0).round.clamp(0, edge - 1) } }
        picture[rows, columns, true].dup
      end
    end
    programmes = [Programmes.new.add("1D", 50, &pushed[0.004]).add("2D", 70, into: 28, &pushed[0.004]).add("3A", 50, into: 21),
      Programmes.new.add("3B", 40).fade("1A", 40, down: 9, hold: 0, up: 8).fade("1C", 40, down: 5, hold: 0, up: 6)]
    programmes.each_with_index do |programme, number|
      found = described_class.of(programme.write(File.join(@folder, "#{number}.mp4"))).map(&:to_h)
      expect([share(programme.truth, found), share(found, programme.truth)]).to eq([1.0, 1.0]), found.inspect
    end
  end

  it "finds nothing in a test picture in which much moves" do
    path = File.join(@folder, "test.mp4")
    system("ffmpeg", "-v", "error", "-y", "-f", "lavfi", "-i", "testsrc2=s=192x108:r=24,trim=end_frame=60", "-c:v", "libx264", "-crf", "12", "-pix_fmt", "yuv420p", path, exception: true)
    expect(described_class.of(path)).to eq([])
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
  # Each picture with the frame that it is.
  def frames(path) = [].tap { |list| described_class.each(path, Mordant::Media::Probe.new(path)) { |thumb, frame| list << [thumb, frame] } }

  def made(name, source, *coding)
    File.join(@folder, name).tap { |path| system("ffmpeg", "-v", "error", "-y", "-f", "lavfi", "-i", "#{source}=s=640x360:r=24,trim=end_frame=30", "-c:v", "libx264", *coding, "-pix_fmt", "yuv420p", path, exception: true) }
  end

  before { stub_const("#{described_class}::LARGE", 640 * 360) }

  it "decodes of a large video what others lean on, and each as it is" do
    path = made("large.mp4", "mandelbrot", "-preset", "fast", "-bf", "3", "-b_strategy", "0") # B frames lean on B frames
    some = frames(path)
    stub_const("#{described_class}::LARGE", Float::INFINITY)
    all = frames(path)
    expect(all.map(&:last)).to eq([*0..29])
    expect(some.size).to be_between(12, 20)
    expect(some.map { |thumb, frame| (Numo::SFloat.cast(thumb) - Numo::SFloat.cast(all[frame].first)).abs.mean }.max).to be < 0.5
  end

  it "decodes all where frames lean on each other over larger gaps" do
    path = made("gaps.mp4", "testsrc2", "-preset", "ultrafast", "-bf", "15", "-b_strategy", "0")
    expect(frames(path).map(&:last)).to eq([*0..29])
  end
end

RSpec.describe Mordant::Cut::Changes::Detail do
  let(:height) { Mordant::Cut::Changes::Thumbs::HEIGHT }
  let(:width) { Mordant::Cut::Changes::Thumbs::WIDTH }

  def pattern(seed) = Numo::SFloat.cast(Random.new(seed).then { |random| Array.new(height) { Array.new(width) { random.rand(0.2..0.8) } } })

  def alike(one, other) = [one, other].map { |picture| described_class.of(picture).flatten }.then { |a, b| (a * b).sum / Math.sqrt((a * a).sum * (b * b).sum) }

  it "is the same in another light, also where that falls on one side alone, and nothing in a picture of one colour" do
    one, other = pattern(1), pattern(2)
    from_beside = Numo::SFloat.new(1, width).seq / width * 0.9 + 0.1
    expect(alike(one, one * 0.2)).to be > 0.95
    expect(alike(one, one * from_beside)).to be > 0.95
    expect(alike(one, other).abs).to be < 0.1
    expect(described_class.of(Numo::SFloat.new(height, width).fill(0.5)).abs.max).to be < 1e-3
  end
end

RSpec.describe Mordant::Cut::Changes::Bars do
  let(:height) { Mordant::Cut::Changes::Thumbs::HEIGHT }
  let(:width) { Mordant::Cut::Changes::Thumbs::WIDTH }

  def without(pictures) = described_class.without(pictures.reshape(pictures.shape[0], height * width * 3)).reshape(*pictures.shape)

  it "leaves what lies between them, in their place, and all of a picture that has none or is of one colour" do
    pictures = Numo::SFloat.cast(Random.new(3).then { |random| Array.new(4 * height * width * 3) { random.rand(0.0..1.0) } }).reshape(4, height, width, 3)
    expect(without(pictures)).to eq(pictures)
    expect(without(pictures * 0 + 0.4)).to eq(pictures * 0 + 0.4)

    barred = pictures.dup
    barred[true, 0...4, true, true] = 0.0
    barred[true, (height - 4)..-1, true, true] = 0.02
    # a row at either end may be bar in part
    expect(without(barred)[true, [0, height - 1], true, true].dup).to eq(pictures[true, [5, height - 6], true, true].dup)
    expect(without(barred)[true, height / 2, true, true].dup).to eq(pictures[true, height / 2, true, true].dup)

    barred = pictures.dup
    barred[true, true, (width - 6)..-1, true] = 0.5
    expect(without(barred)[true, true, [0, width - 1], true].dup).to eq(pictures[true, true, [0, width - 8], true].dup)
  end
end
