# frozen_string_literal: true

require "spec_helper"
require "json"
require "vips"

RSpec.describe Mordant::Deliver::Format, :folder do
  # Slow gradients of a display's codes, moving from frame to frame.
  let(:stage) do
    Class.new do
      def each_of(variants, first:, count:)
        (first...(first + count)).each { |record| yield variants.map { picture(record) }, record }
      end

      def picture(record)
        x = Numo::SFloat.new(144, 256).seq % 256 / 256.0
        y = (Numo::SFloat.new(144, 256).seq / 256).floor / 144.0
        planes = [x * 0.2 + 0.3, x * 0.18 + y * 0.03 + 0.3, (x + y) * 0.1 + 0.31 + record * 0.002]
        Mordant::Frame.new(Numo::NArray.vstack(planes.map { |plane| plane.reshape(1, 256 * 144) }), width: 256, height: 144, encoding: "acescct")
      end
    end.new
  end
  let(:space) { Mordant::Colour::WorkingSpace.default }
  let(:start) { Mordant::Cut::Timecode.parse("01:02:03:04", Rational(24)) }
  let(:views) do
    {"rec709-bt1886" => Mordant::Grade::View::STANDARD, "rec2100-pq" => Mordant::Grade::View.new(encoding: "rec2100-pq", rendering: "hdr-video-1000nit-15nit-rec2020lim-1.1"), "aces2065-1" => Mordant::Grade::View::MASTER}
  end

  def written(format, encoding, count: 6, **more)
    sheet = Mordant::Deliver::Sheet.new({"format" => format, "view" => views.fetch(encoding), **more.transform_keys(&:to_s)}, width: 256, height: 144)
    path = File.join(@folder, "out#{sheet.format.extension unless sheet.format.sequence?}")
    writer = sheet.format.sequence? ? Mordant::Deliver::SequenceWriter.new(sheet, path:, start:, first: 0) : Mordant::Deliver::VideoWriter.new(sheet, path:, rate: Rational(24), first: 0)
    describe = ->(record) { [Mordant::Media::FrameFacts.new(rate: Rational(24), timecode: start + record, name: "out", source: "a.mov", reel: "H014", number: record, count:), {}] }
    pass = Mordant::Deliver::Pass.new(programme: stage, space:, writers: {out: writer}, describe:)
    [[0, count / 2], [count / 2, count - count / 2]].each do |first, some|
      pass.run(first:, count: some)
      writer.seal(first, some)
    end
    writer.finish(timecode: start, reel: "H014", light: Mordant::Deliver::LightLevels.over(pass.findings.levels(:out)))
    [sheet, path]
  end

  # What the viewer shows for the view.
  def seen(sheet, record) = Mordant::Grade::Output.for(sheet.view, space).run(stage.picture(record)).rgb.then { |rgb| sheet.format.float? ? rgb : rgb.clip(0.0, 1.0) }

  def stream(path) = JSON.parse(Mordant::Media::Command.run(["ffprobe", "-v", "error", "-of", "json", "-show_streams", "-show_format", path], path:))

  def decoded(path, sheet, record)
    clip = File.directory?(path) ? "#{path}/out.[0089356-0089361]#{sheet.format.extension}" : path
    Mordant::Media::Reader.new(clip, rate: Rational(24)).frame(record, width: 256, height: 144).frame(encoding: sheet.view.encoding).rgb
  end

  # Codes, the dither included; of lossy encoders the mean, as chroma has fewer samples at the edges.
  {"dpx-10" => 1.1 / 1023, "dpx-16" => 1.1 / 65_535, "tiff-16" => 1.1 / 65_535, "png-16" => 1.1 / 65_535, "ffv1" => 1.1 / 65_535,
   "vc3-mov" => 1.0 / 1023, "vc3-mxf" => 1.0 / 1023, "h264" => 2.5 / 1023, "h264-8" => 2.5 / 255, "av1" => 2.5 / 1023}.each do |format, most|
    it "reads back from #{format} what the viewer shows, and the tags say what it is" do
      sheet, path = written(format, "rec709-bt1886")
      off = [0, 4].map { |record| (decoded(path, sheet, record) - seen(sheet, record)).abs }
      expect(off.map { |values| (most > 1e-4 && sheet.format < Mordant::Deliver::VideoFormat) ? values.mean : values.max }).to all(be < most)
      expect(off.map(&:max)).to all(be < 0.04)
      next if sheet.format.sequence?

      told = stream(path)
      video = told["streams"].find { |one| one["codec_type"] == "video" }
      expect(video).to include("color_primaries" => "bt709", "color_transfer" => "bt709", "color_space" => (format == "ffv1") ? "gbr" : "bt709", "color_range" => (format == "ffv1") ? "pc" : "tv")
      expect(told.to_s).to include("01:02:03:04")
      expect(Mordant::Media::Probe.call(path)).to have_attributes(frames: 6, reel: "H014", start: "01:02:03:04")
    end
  end

  # A slow gradient without dither is off by up to half a code, in bands; with it neither way over some pixels.
  {"dpx-10" => 1023, "ffv1" => 65_535, "png-16" => 65_535, "tiff-16" => 65_535}.each do |format, most|
    it "is dithered in #{format}, to no side, and differently in each frame" do
      made = [true, false].map do |dither|
        sheet, path = written(format, "rec709-bt1886", dither:)
        [0, 4].map { |record| (decoded(path, sheet, record) - seen(sheet, record)) * most }.tap { FileUtils.rm_rf(path) }
      end
      means = made.map { |(off, _)| off[0, true].reshape(18, 8, 32, 8).mean(axis: 3).mean(axis: 1).abs.mean }
      expect(made[0][0].stddev).to be > 1.3 * made[1][0].stddev
      expect(means[0]).to be < 0.12
      expect((made[0][0] - made[0][1]).stddev).to be > 0.3
    end
  end

  it "is dithered wherever codes are whole numbers, unless somebody says otherwise" do
    described_class.all.each do |format|
      view = [views["rec709-bt1886"], views["rec2100-pq"], views["aces2065-1"]].find { |one| format.refusal(one).nil? }
      sheet = Mordant::Deliver::Sheet.new({"format" => format.id, "view" => view}, width: 256, height: 144)
      expect(sheet.dither(0).nil?).to eq(format.float?), format.id
    end
  end

  # Hard edges between the strongest colours there are, and light beyond the codes.
  (described_class.all - described_class.all.select(&:sequence?)).reject(&:rgb?).each do |format|
    it "writes nothing outside of legal range in #{format.id}" do
      colours = [[1, 1, 0], [0, 0, 1], [2, 2, 2], [0, 1, 0], [1, 0, 1], [-1, -1, -1], [0, 1, 1], [1, 0, 0], [1, 1, 1], [0, 0, 0]]
      view = (format.id == "hdr10") ? views["rec2100-pq"] : Mordant::Grade::View.new(encoding: "rec709-bt1886")
      sheet = Mordant::Deliver::Sheet.new({"format" => format.id, "view" => view, "range" => "legal"}, width: 320, height: 144)
      planes = Array.new(3) { |channel| Numo::SFloat.cast(Array.new(320) { |x| colours[x / 32][channel].to_f }) + Numo::SFloat.zeros(144, 320) }
      frame = Mordant::Frame.new(Numo::NArray.vstack(planes.map { |plane| plane.reshape(1, 320 * 144) }), width: 320, height: 144, encoding: view.encoding)
      path = File.join(@folder, "out#{format.extension}")
      writer = Mordant::Deliver::VideoWriter.new(sheet, path:, rate: 24r, first: 0).tap(&:open)
      3.times { |record| writer.write(record, frame, nil) }
      writer.seal(0, 3)
      writer.finish(timecode: start)
      raw = Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-i", path, "-f", "rawvideo", "-pix_fmt", format.pixels, "pipe:1"], path:)
      codes = (format.bits == 8) ? Numo::UInt8.from_binary(raw) : Numo::UInt16.from_binary(raw)
      luma, chroma = 320 * 144, codes.size / 3 - 320 * 144
      step = 2**(format.bits - 8)
      # where pictures are predicted from others, a coder rings by a little at such edges
      rings = format.intra? ? 0 : [1.5 * step, 2].max
      3.times do |number|
        at = number * (luma + chroma)
        [[codes[at...(at + luma)], [16, 235]], [codes[(at + luma)...(at + luma + chroma)], [16, 240]]].each do |plane, (low, high)|
          expect([plane.min, plane.max]).to match([be >= low * step - rings, be <= high * step + rings])
        end
        middle = codes[at...(at + luma)].reshape(144, 320)[20..120, (0...320).select { |x| (12..19).cover?(x % 32) }].dup
        expect([middle.min, middle.max]).to match([be >= 16 * step - rings.clamp(0, 1), be <= 235 * step + rings.clamp(0, 1)])
      end
    end
  end

  it "has encoders hold few large pictures at once, and reads back from them what the viewer shows all the same" do
    large = ->(width, height) { Mordant::Deliver::Sheet.new({"format" => "h264", "view" => views["rec709-bt1886"]}, width:, height:).large? }
    expect([large[1920, 1080], large[2048, 1556], large[3840, 2160]]).to eq([false, false, true])
    {"h264" => ["rec709-bt1886", 1023], "h264-8" => ["rec709-bt1886", 255], "av1" => ["rec709-bt1886", 1023], "hdr10" => ["rec2100-pq", 1023]}.each do |format, (encoding, most)|
      FileUtils.rm_rf(Dir[File.join(@folder, "*")])
      stub_const("Mordant::Deliver::Sheet::LARGE", 0)
      sheet, path = written(format, encoding, count: 4)
      expect((decoded(path, sheet, 2) - seen(sheet, 2)).abs.mean).to be < 2.5 / most, format
      few = sheet.format.encoder(sheet)
      stub_const("Mordant::Deliver::Sheet::LARGE", 4_000_000)
      many = sheet.format.encoder(sheet)
      expect(few).not_to eq(many), format
    end
  end

  it "reads back from HDR10 what the viewer shows, with mastering display and light levels" do
    sheet, path = written("hdr10", "rec2100-pq")
    expect((decoded(path, sheet, 4) - seen(sheet, 4)).abs.mean).to be < 2.5 / 1023
    frames = JSON.parse(Mordant::Media::Command.run(["ffprobe", "-v", "error", "-of", "json", "-show_frames", "-select_streams", "v", "-read_intervals", "%+#1", path], path:))["frames"]
    data = frames.first["side_data_list"].to_h { |one| [one["side_data_type"], one] }
    expect(data["Mastering display metadata"]).to include("red_x" => "35400/50000", "green_y" => "39850/50000", "white_point_x" => "15635/50000", "max_luminance" => "10000000/10000")
    brightest = (0...6).map { |record| Mordant::Colour::Transfer::PQ.decode(Numo::DFloat.cast(seen(sheet, record).max(axis: 0))) * 100 }
    expect(data["Content light level metadata"]).to include("max_content" => brightest.map(&:max).max.ceil, "max_average" => be_within(1).of(brightest.map(&:mean).max.ceil))
    expect(stream(path)["streams"].first).to include("codec_tag_string" => "hvc1", "color_transfer" => "smpte2084", "color_primaries" => "bt2020", "color_space" => "bt2020nc")
  end

  {"exr-half" => ["half", 1.0 / 1024], "exr-float" => ["float", 1e-6]}.each do |format, (kind, most)|
    %w[zip none].each do |compression|
      it "writes #{format} #{compression} as exrheader, ffmpeg and libvips read it" do
        sheet, path = written(format, "aces2065-1", options: {"compression" => compression})
        file = File.join(path, "out.0089360.exr")
        header = Mordant::Media::Command.run(["exrheader", file], path:).force_encoding("UTF-8").scrub
        expect(header).to include("compression (type compression): #{(compression == "zip") ? "zip, multi" : "none"}").and match(/R, .*#{(kind == "half") ? "16-bit" : "32-bit"} floating-point/)
        expect(header).to include("time 01:02:03:08").and include("H014").and include("0.7347")
        expect(header.include?("acesImageContainerFlag")).to eq(format == "exr-half" && compression == "none")
        read = Numo::SFloat.from_binary(Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-i", file, "-f", "rawvideo", "-pix_fmt", "gbrpf32le", "-"], path:), [3, 256 * 144])
        wanted = seen(sheet, 4)
        [1, 2, 0].each_with_index { |channel, plane| expect((read[plane, true] - wanted[channel, true]).abs.max).to be <= wanted.abs.max * most }
        expect(Vips::Image.new_from_file(file).getpoint(200, 130).first(3)).to match(wanted[true, 130 * 256 + 200].to_a.map { |value| be_within(value.abs / 500).of(value) })
      end
    end
  end

  it "is read frame by frame as it is read through, in MXF too" do
    sheet, path = written("vc3-mxf", "rec709-bt1886")
    through = []
    Mordant::Media::Reader.new(path, rate: Rational(24)).each(first: 0, count: 6, width: 256, height: 144) { |codes| through << codes.frame(encoding: sheet.view.encoding).rgb.to_a }
    expect((0...6).map { |record| decoded(path, sheet, record).to_a }).to eq(through)
  end

  %w[vc3-mov vc3-mxf ffv1 h264].each do |format|
    it "makes one #{format} of its parts without a gap, at a broken rate too" do
      rate = Rational(30_000, 1001)
      sheet = Mordant::Deliver::Sheet.new({"format" => format, "view" => views["rec709-bt1886"]}, width: 256, height: 144)
      writer = Mordant::Deliver::VideoWriter.new(sheet, path: File.join(@folder, "out#{sheet.format.extension}"), rate:, first: 0)
      writer.open
      frame = Mordant::Grade::Output.for(sheet.view, space).run(stage.picture(0))
      [[0, 5], [5, 2], [7, 4]].each do |first, count|
        (first...(first + count)).each { |record| writer.write(record, frame, nil) }
        writer.seal(first, count)
      end
      writer.finish(timecode: start)
      packets = JSON.parse(Mordant::Media::Command.run(%W[ffprobe -v error -of json -select_streams v -show_entries packet=pts_time #{writer.path}], path: writer.path))["packets"]
      expect(packets.map { |packet| packet["pts_time"].to_f }.sort).to match(Array.new(11) { |at| be_within(0.001).of(at / rate) })
    end
  end

  it "measures again what a killed writer wrote and did not tell of, and writes nothing of it twice" do
    sheet = Mordant::Deliver::Sheet.new({"format" => "png-16", "view" => views["rec2100-pq"]}, width: 256, height: 144)
    writer = Mordant::Deliver::SequenceWriter.new(sheet, path: File.join(@folder, "hdr"), start:, first: 0)
    describe = ->(record) { [Mordant::Media::FrameFacts.new(rate: Rational(24), timecode: start + record), {}] }
    pass = ->(findings) { Mordant::Deliver::Pass.new(programme: stage, space:, writers: {7 => writer}, describe:, findings:) }
    whole = Mordant::Deliver::Findings.new
    pass[whole].run(first: 0, count: 4)
    times = Dir.glob("#{writer.path}/*").map { |file| File.mtime(file) }
    killed = Mordant::Deliver::Findings.new(JSON.parse(whole.to_h.transform_values { |found| found.except("drawn").merge("measured" => [0, 1], "levels" => found["levels"].first(2)) }.to_json))
    written = []
    pass[killed].run(first: 0, count: 4) { |record| written << record }
    expect(written).to eq([2, 3])
    expect(killed.levels(7)).to eq(whole.levels(7))
    expect(Dir.glob("#{writer.path}/*").map { |file| File.mtime(file) }).to eq(times)
  end

  it "counts the pixels that codes cannot say, of each frame" do
    rgb = Numo::SFloat.new(3, 100).fill(0.4)
    rgb[true, 0...10] = 1.4
    stage.define_singleton_method(:picture) { |_| Mordant::Frame.new(rgb, width: 10, height: 10, encoding: "acescct") }
    found = %w[png-16 exr-half].map do |format|
      view = Mordant::Grade::View.new(encoding: (format == "png-16") ? "srgb" : "aces2065-1")
      sheet = Mordant::Deliver::Sheet.new({"format" => format, "view" => view, "width" => 16, "height" => 16}, width: 16, height: 16)
      writer = Mordant::Deliver::SequenceWriter.new(sheet, path: File.join(@folder, format), start:, first: 0)
      pass = Mordant::Deliver::Pass.new(programme: stage, space:, writers: {it: writer}, describe: ->(record) { [Mordant::Media::FrameFacts.new(rate: Rational(24), timecode: start + record), {}] })
      pass.run(first: 3, count: 2)
      pass.findings.beyond(:it)
    end
    expect(found).to eq([[[3, 0.1], [4, 0.1]], []])
  end

  it "goes on where it was killed, and everything is the same bit for bit" do
    _, whole = written("dpx-10", "rec709-bt1886")
    files = Dir.children(whole).sort.to_h { |name| [name, File.binread(File.join(whole, name))] }
    files.keys.values_at(1, 3, 4).each { |name| File.delete(File.join(whole, name)) }
    kept = File.mtime(File.join(whole, files.keys.first))
    File.write(File.join(whole, "#{files.keys[3]}.4711.part"), "half of it")
    written("dpx-10", "rec709-bt1886")
    expect(Dir.children(whole).sort.to_h { |name| [name, File.binread(File.join(whole, name))] }).to eq(files)
    expect(File.mtime(File.join(whole, files.keys.first))).to eq(kept)
  end

  it "leaves nothing of a video half written where its end is expected, and says what the encoder died of" do
    sheet = Mordant::Deliver::Sheet.new({"format" => "h264", "view" => views["rec709-bt1886"]}, width: 256, height: 144)
    writer = Mordant::Deliver::VideoWriter.new(sheet, path: File.join(@folder, "gone.mp4"), rate: Rational(24), first: 0)
    writer.open
    File.binwrite(File.join(writer.folder, "p00000000-2.nut"), "nothing")
    expect { writer.finish(timecode: start) }.to raise_error(Mordant::MediaError, /gone\.mp4/)
    expect(File.exist?(writer.path)).to be(false)
    writer.abandon
    expect(Dir.children(@folder)).to be_empty
  end
end
