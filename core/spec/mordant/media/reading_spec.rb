# frozen_string_literal: true

require "spec_helper"
require "timeout"

RSpec.describe Mordant::Media::Probe, :folder do
  it "says what a clip is" do
    path = Footage.steps(@folder, name: "tagged.mov", arguments: ["-c:v", "libx264", "-pix_fmt", "yuv422p10le", "-timecode", "10:00:00:05",
      "-metadata", "encoding=logc3-ei800-wg3", "-metadata", "reel=A001", "-movflags", "use_metadata_tags"])
    expect(described_class.call(path).to_h).to include(width: 64, height: 36, rate: Rational(24), frames: 12, start: "10:00:00:05",
      reel: "A001", codec: "h264", bit_depth: 10, encoding: "logc3-ei800-wg3")
  end

  it "takes no encoding from a file that declares an unknown one" do
    path = Footage.steps(@folder, arguments: ["-metadata", "encoding=something"])
    expect(described_class.call(path).encoding).to be_nil
  end

  it "refuses what it cannot use, with the file and the reason" do
    {"empty.mov" => ["", /empty/], "noise.mov" => ["\x00\x01" * 500, /Invalid data|moov/], "sound.dng" => ["x", /sensor-raw/]}
      .each do |name, (bytes, reason)|
        path = File.join(@folder, name)
        File.binwrite(path, bytes)
        expect { described_class.call(path) }.to raise_error(Mordant::MediaError) { |error| expect([error.path, error.reason]).to match([path, reason]) }
      end
    expect { described_class.call(File.join(@folder, "gone.mov")) }.to raise_error(Mordant::MediaError, /not there/)
  end
end

RSpec.describe Mordant::Media::Reader, :folder do
  let(:path) { Footage.steps(@folder) }
  let(:reader) { described_class.new(path, rate: Rational(24)) }

  it "delivers exactly the frames asked for, to the code" do
    [0, 5, 11].each do |number|
      found = reader.frame(number, width: 64, height: 36).rgb
      expect([found.min, found.max]).to all(be_within(40).of(Footage.code(number))), "frame #{number}"
    end
    seen = []
    reader.each(first: 3, count: 4, width: 64, height: 36) { |codes| seen << codes.rgb[0, 0] }
    expect(seen.map { |code| (code * 1023 / 65_535.0 - 100).round / 40 }).to eq([3, 4, 5, 6])
  end

  it "complains of a file that ends too early, and of one that is cut off" do
    expect { reader.each(first: 10, count: 5, width: 64, height: 36) { nil } }
      .to raise_error(Mordant::MediaError, /ends at frame 12, 3 short/)
    short = File.join(@folder, "short.mkv")
    File.binwrite(short, File.binread(path, File.size(path) / 3))
    expect { described_class.new(short, rate: Rational(24)).frame(11, width: 64, height: 36) }.to raise_error(Mordant::MediaError, /short\.mkv/)
  end

  it "takes a run of numbered frames as one clip and tells of gaps" do
    4.times { |n| Mordant::Media::Stills.write(Frames.flat([0.1 * n] * 3, width: 64, height: 36), File.join(@folder, format("run.%04d.png", n + 7))) }
    sequences, others = Mordant::Media::Sequence.group(@folder, Dir.children(@folder).push("notes.txt"))
    expect(others).to include("notes.txt")
    expect(sequences.map { |one| [File.basename(one.path), one.frames] }).to eq([["run.[0007-0010].png", 4]])
    expect(described_class.new(sequences.first.path, rate: Rational(24)).frame(2, width: 64, height: 36).rgb[0, 9]).to be_within(40).of(0.2 * 65_535)
    File.delete(File.join(@folder, "run.0009.png"))
    gapped = Mordant::Media::Sequence.group(@folder, Dir.children(@folder)).first.first
    expect(gapped.missing).to eq([9..9])
    expect(Mordant::Media::Probe.call(gapped.path)).to have_attributes(frames: 4, missing: [[9, 9]])
    seen = []
    expect { described_class.new(gapped.path).each(first: 0, count: 4, width: 64, height: 36) { |codes| seen << codes.rgb[0, 9] } }
      .to raise_error(Mordant::Media::MissingFrame, /frame 9 is missing/)
    expect(seen.map { |code| code.fdiv(65_535).round(1) }).to eq([0.0, 0.1])
  end

  it "says which frame of a run is broken, however much comes after it" do
    (101..106).each { |n| Mordant::Media::Stills.write(Frames.flat([0.1] * 3, width: 320, height: 180), File.join(@folder, format("run.%04d.png", n))) }
    File.write(File.join(@folder, "run.0103.png"), "nothing")
    seen = 0
    reading = proc { Mordant::Media::Reader.new(File.join(@folder, "run.[0101-0106].png")).each(first: 0, count: 6, width: 320, height: 180) { seen += 1 } }
    expect { Timeout.timeout(60, &reading) }.to raise_error(Mordant::MediaError, /frame 103 cannot be decoded.*copy it again/)
    expect(seen).to eq(2)
  end
end

RSpec.describe Mordant::Media::Command do
  it "ends a program that stands still, however long it is read from, and says what failed" do
    expect { described_class.run(%w[sleep 30], path: "slow", limit: 0.2) }.to raise_error(Mordant::MediaError, /slow: sleep stood still for 0.2 seconds/)
    lines = []
    described_class.stream(%w[printf a\\nbc\\nd], path: "x", limit: 0.2) do |outflow|
      outflow.each_line { |line| lines << line && sleep(0.15) }
    end
    expect(lines).to eq(%W[a\n bc\n d])
    expect { described_class.run(%w[ffprobe -v error no-such-file], path: "x") }.to raise_error(Mordant::MediaError, /No such file/)
    expect { described_class.run(["no-such-program"], path: "x") }.to raise_error(Mordant::MediaError, /not installed/)
  end

  it "leaves errors of whoever reads as they are, and ends the program" do
    expect { described_class.stream(%w[yes], path: "x") { |outflow| outflow.read(10) && File.read("no-such-file") } }.to raise_error(Errno::ENOENT, /no-such-file/)
    begin
      raise "outer"
    rescue RuntimeError
      expect(described_class.run(%w[printf fine], path: "x")).to eq("fine")
    end
  end
end

RSpec.describe Mordant::Media::Codes do
  it "says which codes occur, apart by at least one 10-bit code" do
    rgb = Numo::UInt16.zeros(3, 4)
    rgb[0, true] = [10_000, 20_000, 30_000, 40_000]
    low, high = described_class.new(rgb, width: 2, height: 2).domain
    expect([low[0], high[0]]).to eq([10_000 / 65_535.0, 40_000 / 65_535.0])
    expect(high[1] - low[1]).to be_within(1e-9).of(1.0 / 1023)
  end

  it "means whole blocks, rounded" do
    rgb = Numo::UInt16.cast([[1, 2, 9, 3, 4, 9], [65_535] * 6, [0] * 6])
    expect(described_class.new(rgb, width: 3, height: 2).reduce(2).rgb.to_a).to eq([[3], [65_535], [0]])
  end
end

RSpec.describe Mordant::Media::Slated, :folder do
  it "stands in for missing frames, and keeps the others in their place" do
    [1, 2, 3, 6, 7].each { |n| Mordant::Media::Stills.write(Frames.flat([0.1 * n] * 3, width: 64, height: 36), File.join(@folder, format("run.%04d.png", n + 1000))) }
    path = Mordant::Media::Sequence.group(@folder, Dir.children(@folder)).first.first.path
    reader = described_class.new(Mordant::Media::Reader.new(path))
    [[0, 7], [2, 3], [3, 1], [4, 3]].each do |first, count|
      seen = []
      reader.each(first:, count:, width: 64, height: 36) { |codes| seen << ((codes.rgb.max == codes.rgb.min) ? codes.rgb[0, 0].fdiv(65_535).round(1) : :slate) }
      expect(seen).to eq([0.1, 0.2, 0.3, :slate, :slate, 0.6, 0.7][first, count])
    end
  end

  it "reads what there is of a run of floats up to its gap" do
    frame = Mordant::Frame.new(Numo::SFloat.new(3, 64 * 36).fill(2.5), width: 64, height: 36, encoding: "acescg")
    exr = Mordant::Media::EXR.new(primaries: Mordant::Colour::Primaries::AP1, rate: 25r)
    [*1001..1009, *1011..1012].each { |number| File.binwrite(File.join(@folder, "p.#{number}.exr"), exr.encode(frame)) }
    seen = 0
    Mordant::Media::Reader.new(File.join(@folder, "p.[1001-1012].exr")).each(first: 0, count: 9, width: 64, height: 36) { seen += 1 }
    expect(seen).to eq(9)
  end
end
