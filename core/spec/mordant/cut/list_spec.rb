# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Cut::List do
  def list(text, rate: 24r) = described_class.parse("cut.edl", text, rate:)

  def event(found) = [found.number, found.reel, found.clip, found.transition.kind, found.transition.length, *%i[source_in source_out record_in record_out].map { |name| found[name].to_s }]

  it "reads events, a dissolve with both of its sides, names and reels of comments" do
    found = list(<<~EDL)
      TITLE: Harbour  reel 1
      FCM: NON-DROP FRAME

      001  H014     V     C        09:12:04:06 09:12:06:06 01:00:00:00 01:00:02:00
      * FROM CLIP NAME: H014_1A.mov
      * ASC_SOP (1.1 1 1)(0 0 0)(1 1 1)
      002  H014     V     C        09:12:06:06 09:12:06:06 01:00:02:00 01:00:02:00
      002  D207C003 V     D    012 10:05:18:06 10:05:19:18 01:00:02:00 01:00:03:12
      * FROM CLIP NAME: H014_1A.mov
      * TO CLIP NAME: D207_1D.mov
      * SOURCE FILE: D207_1D_230912.mov
      * SOURCE REEL: D207C003_230912_R1XY
      003  AX       B     W001 008 00:00:10:00 00:00:12:00 01:00:03:12 01:00:05:12
      004  BL       V     C        00:00:00:00 00:00:01:00 01:00:05:12 01:00:06:12
    EDL
    expect([found.title, found.rate, found.notes]).to eq(["Harbour  reel 1", 24r, []])
    expect(found.events.map { |one| event(one) }).to eq([
      [1, "H014", "H014_1A.mov", "cut", 0, "09:12:04:06", "09:12:06:06", "01:00:00:00", "01:00:02:00"],
      [2, "D207C003_230912_R1XY", "D207_1D.mov", "dissolve", 12, "10:05:18:06", "10:05:19:18", "01:00:02:00", "01:00:03:12"],
      [3, "AX", nil, "wipe", 8, "00:00:10:00", "00:00:12:00", "01:00:03:12", "01:00:05:12"],
      [4, "BL", nil, "cut", 0, "00:00:00:00", "00:00:01:00", "01:00:05:12", "01:00:06:12"]
    ])
    expect([found.events[2].transition.wipe, found.events[1].file, found.events[3].black?]).to eq([1, "D207_1D_230912.mov", true])
  end

  it "reads the same of every way in which programs write text" do
    lines = "TITLE: café\r\n001  A V C 00:00:00:00 00:00:02:00 01:00:00:00 01:00:02:00\r\n* FROM CLIP NAME: café\r\n"
    ways = [lines, lines.delete("\r"), lines.delete("\n"), "\uFEFF#{lines}", "#{lines}\u001A", "\uFEFF#{lines}".encode("UTF-16LE"), "\uFEFF#{lines}".encode("UTF-16BE"), lines.encode("ISO-8859-1"), "\xEF\xBB\xBF".b + lines.encode("ISO-8859-1").b]
    ways.each do |text|
      found = described_class.parse("l.edl", described_class.text(text), rate: 24r)
      expect([found.title, found.events.map(&:clip), found.notes]).to eq(["café", ["café"], []]), text.b.inspect
    end
  end

  it "reads lists as they come: CRLF, tabs, Latin-1, numbers out of order, split sound" do
    text = "TITLE: M\xF6we\r\nFCM: NON-DROP FRAME\r\n12\tR2\tV\tC\t00:00:02:00\t00:00:03:00\t01:00:01:00\t01:00:02:00\r\n* FROM CLIP NAME: K\xFCste.mov\r\n" \
           "3\tR1\tAA/V\tC\t00:00:01:00\t00:00:02:00\t01:00:00:00\t01:00:01:00\r\nSPLIT:    AUDIO DELAY=  00:00:00:05\r\nAUD  3    4\r\n4\tR1\tA2\tC\t00:00:01:00\t00:00:02:00\t01:00:00:00\t01:00:01:00\r\n".b
    found = described_class.parse("x.edl", described_class.text(text), rate: 25r)
    expect([found.title, found.events.map { |one| [one.number, one.clip] }]).to eq(["Möwe", [[3, nil], [12, "Küste.mov"]]])
    expect(found.notes).to include("event 4: sound alone (A2), passed over", "line 6: of split sound the picture alone is taken", "events stand in another order than their record times; they are taken by record time")
  end

  it "counts drop frame, by its sign and by the list's word, and says which rate it took" do
    found = list(<<~EDL, rate: nil)
      FCM: DROP FRAME
      001  R1  V  C  00:00:59;28 00:01:00;03 01:00:59:28 01:01:00:03
    EDL
    expect([found.rate, found.events[0].length, found.events[0].record_out.to_s]).to eq([30_000r / 1001, 3, "01:01:00;03"])
    expect(found.notes).to eq(["the list does not tell its rate: drop frame, so 30000/1001 was taken"])
    plain = list("001  R1  V  C  00:00:00:00 00:00:01:24 01:00:00:00 01:00:01:24\n", rate: nil)
    expect([plain.rate, plain.notes.first]).to match([25r, /25, the lowest that its frame numbers allow/])
  end

  it "reads speeds: told, backwards, standing still, and those that lengths alone tell" do
    found = list(<<~EDL)
      001  R1  V  C  00:00:00:00 00:00:02:00 01:00:00:00 01:00:01:00
      M2   R1       048.0                00:00:00:00
      002  R2  V  C  00:00:10:00 00:00:11:00 01:00:01:00 01:00:02:00
      M2   R2      -024.0                00:00:10:00
      003  R3  V  C  00:00:20:00 00:00:20:01 01:00:02:00 01:00:03:00
      M2   R3       000.0                00:00:20:00
      004  R4  V  C  00:00:30:00 00:00:30:12 01:00:03:00 01:00:04:00
    EDL
    expect(found.events.map(&:speed)).to eq([2r, -1r, 0r, 1r / 2])
    expect(found.notes).to eq(["event 4: 12 frames of source for 24 of record without a speed; taken as 0.5 times"])
  end

  it "reads keys over what lies under them, and reels that a comment gives back in full" do
    found = list(<<~EDL)
      001  R1  V  K B      00:00:00:00 00:00:02:00 01:00:00:00 01:00:02:00
      001  R2  V  K    012 00:00:05:00 00:00:06:00 01:00:00:12 01:00:01:12
      * KEY CLIP NAME: title.mov
      002  LONGREEL V  C   00:00:05:00 00:00:06:00 01:00:02:00 01:00:03:00
      * REEL: LONGREEL_0042_B REPLACED BY: LONGREEL
    EDL
    expect(found.events.map { |one| [one.number, one.reel, one.clip, one.transition.kind] }).to eq([[1, "R1", nil, "cut"], [1, "R2", "title.mov", "key"], [2, "LONGREEL_0042_B", nil, "cut"]])
    expect(found.notes).to include("event 1 is keyed over what lies under it")
  end

  it "says of a list that is wrong which line, what was expected and what stands there" do
    {
      "" => [1, "events of an edit decision list", "none"],
      "001  R1  V  C  00:00:00:00 00:00:01:00 01:00:00:00\n" => [1, /four timecodes/, /001/],
      "001  R1  V  Q  00:00:00:00 00:00:01:00 01:00:00:00 01:00:01:00\n" => [1, /a transition: C, D, W and a number/, /Q/],
      "\n001  R1  V  C  00:00:00:00 00:00:01:30 01:00:00:00 01:00:01:00\n" => [2, /HH:MM:SS:FF at 24/, "00:00:01:30"],
      "001  R1  V  C  00:00:00:00 00:00:01:00 01:00:01:00 01:00:00:00\n" => [1, "record out after record in, 01:00:01:00", "01:00:00:00"],
      "001  R1  V  C  00:00:01:00 00:00:00:00 01:00:00:00 01:00:01:00\n" => [1, /source out after source in/, "00:00:00:00"],
      "001  R1  V  C  00:00:00:00 00:00:01:00 01:00:00:00 01:00:01:00\n002  R1  V  C  00:00:00:00 00:00:01:00 01:00:00:20 01:00:01:20\n" => [2, "event 2 to begin at 01:00:01:00 or later, where event 1 of line 1 ends", "01:00:00:20"],
      "001  R1  V  D  048 00:00:00:00 00:00:01:00 01:00:00:00 01:00:01:00\n" => [1, /no longer than its event, 24 frames/, 48],
      "001  R1  A  C  00:00:00:00 00:00:01:00 01:00:00:00 01:00:01:00\n" => [1, /an event with picture/, "none"],
      "M2 R1 fast 00:00:00:00\n" => [1, /frames a second/, /M2/]
    }.each do |text, (line, expected, wrong)|
      expect { list(text) }.to raise_error(Mordant::FormatError) { |error| expect([error.line, error.expected, error.found]).to match([line, expected, wrong]) }, text
    end
  end

  it "gives back what the list of the demo cut says, as it was written" do
    found = described_class.read(File.expand_path("../../../../demo/salt_lantern.edl", __dir__), rate: 24r)
    expect([found.events.size, found.events.sum(&:length), found.events.last.transition.to_h, found.notes]).to match([12, be > 400, {"kind" => "dissolve", "length" => 12, "wipe" => nil}, []])
  end
end

RSpec.describe Mordant::Cut::OpenTimelineReading do
  def time(value, rate = 24) = {"OTIO_SCHEMA" => "RationalTime.1", "value" => value, "rate" => rate}

  def range(start, length, rate = 24) = {"OTIO_SCHEMA" => "TimeRange.1", "start_time" => time(start, rate), "duration" => time(length, rate)}

  def clip(name, start, length, rate: 24, **more)
    {"OTIO_SCHEMA" => "Clip.1", "name" => name, "source_range" => range(start, length, rate), "media_reference" => {"OTIO_SCHEMA" => "ExternalReference.1", "target_url" => "file:///cards/#{name}.mov", "available_range" => range(0, 90_000, rate)}, **more.transform_keys(&:to_s)}
  end

  def track(*children, kind: "Video", **more) = {"OTIO_SCHEMA" => "Track.1", "kind" => kind, "children" => children, **more.transform_keys(&:to_s)}

  def stack(*children, **more) = {"OTIO_SCHEMA" => "Stack.1", "children" => children, **more.transform_keys(&:to_s)}

  def gap(length) = {"OTIO_SCHEMA" => "Gap.1", "source_range" => range(0, length)}

  def dissolve(ahead, behind, type = "SMPTE_Dissolve") = {"OTIO_SCHEMA" => "Transition.1", "transition_type" => type, "in_offset" => time(ahead), "out_offset" => time(behind)}

  def timeline(*tracks) = {"OTIO_SCHEMA" => "Timeline.1", "name" => "Cut", "global_start_time" => time(86_400), "tracks" => stack(*tracks)}

  def list(document, **options) = Mordant::Cut::List.parse("cut.otio", document.is_a?(String) ? document : JSON.generate(document), **options)

  def rows(found) = found.events.map { |one| [one.clip, one.source_in.frames, one.source_out.frames, one.record_in.frames - 86_400, one.length] }

  it "reads clips, gaps and transitions: what comes begins where its transition does" do
    found = list(timeline(track(clip("a", 100, 48), dissolve(6, 6), clip("b", 200, 24), gap(12), clip("c", 300, 10)), track(clip("s", 0, 90), kind: "Audio")))
    expect(rows(found)).to eq([["a", 100, 142, 0, 42], ["b", 194, 224, 42, 30], ["c", 300, 310, 84, 10]])
    expect(found.events.map { |one| one.transition.to_h.values_at("kind", "length") }).to eq([["cut", 0], ["dissolve", 12], ["cut", 0]])
    expect([found.title, found.rate, found.notes]).to eq(["Cut", 24r, ["tracks.children[1]: a track of audio, passed over", "12 frames of black between events 2 and 3"]])
    expect(found.events[0].record_in.to_s).to eq("01:00:00:00")
  end

  it "reads stacks within tracks, tracks over each other, trims and other rates" do
    inner = stack(track(clip("under", 0, 48)), track(gap(12), clip("over", 500, 12)), source_range: range(6, 30))
    found = list(timeline(track(clip("a", 10, 10), inner, clip("b", 1000, 25, rate: 25))))
    expect(rows(found)).to eq([["a", 10, 20, 0, 10], ["under", 6, 12, 10, 6], ["over", 500, 512, 16, 12], ["under", 24, 36, 28, 12], ["b", 1000, 1025, 40, 24]])
    expect(found.events.last.source_in.rate).to eq(25r)
    expect(found.notes).to eq(["1 clip lies over the lowest track and is taken instead of what is under it", "event 5: its source runs at 25.0, the timeline at 24.0"])
  end

  it "tells of a transition that something lies over, and of a source that begins later than is asked for" do
    mixed = track(clip("a", 100, 48), dissolve(6, 6), clip("b", 0, 24))
    found = list(timeline(mixed, track(gap(44), clip("title", 0, 10))))
    expect(rows(found)).to eq([["a", 100, 142, 0, 42], ["b", 24 * 86_400 - 6, 24 * 86_400 - 4, 42, 2], ["title", 0, 10, 44, 10], ["b", 6, 24, 54, 18]])
    expect([found.events.map { |one| one.transition.kind }.uniq, found.notes.drop(1)]).to eq([["cut"], ["tracks.children[0].children[2]: only a part of its dissolve is seen, a cut was taken", "event 2: it begins 6 frames before its source does"]])
  end

  it "reads speeds, reels in what goes along, and newer clips with several references" do
    fast = clip("a", 100, 24, effects: [{"OTIO_SCHEMA" => "LinearTimeWarp.1", "time_scalar" => 2.0}], metadata: {"cmx_3600" => {"reel" => "H014"}})
    still = clip("b", 50, 24, effects: [{"OTIO_SCHEMA" => "FreezeFrame.1", "time_scalar" => 0.0}])
    back = clip("c", 50, 24, effects: [{"OTIO_SCHEMA" => "LinearTimeWarp.1", "time_scalar" => -1.0}, {"OTIO_SCHEMA" => "Effect.1", "effect_name" => "glow"}])
    newer = clip("d", 0, 10).merge("OTIO_SCHEMA" => "Clip.2", "media_references" => {"DEFAULT_MEDIA" => {"OTIO_SCHEMA" => "ExternalReference.1", "target_url" => "x/D_9.mxf", "available_range" => range(0, 99)}}, "active_media_reference_key" => "DEFAULT_MEDIA").except("media_reference")
    found = list(timeline(track(fast, still, back, newer)))
    expect(found.events.map { |one| [one.speed, one.source_in.frames, one.source_out.frames] }).to eq([[2r, 100, 148], [0r, 50, 50], [-1r, 50, 74], [1r, 0, 10]])
    expect([found.events[0].reel, found.events[3].file, found.notes]).to eq(["H014", "D_9.mxf", ["tracks.children[0].children[2]: an effect \"glow\", passed over"]])
  end

  it "says of a file that is wrong where, what was expected and what stands there" do
    bad = clip("a", 0, 10).tap { |one| one["source_range"]["duration"]["value"] = "ten" }
    {"{" => /JSON/, "{\"OTIO_SCHEMA\": \"Clip.1\"}" => /a Timeline\.1/, timeline(track(bad)) => /a number at tracks\.children\[0\]\.children\[0\]\.source_range\.duration\.value/,
     timeline(track(gap(5))) => /clips in a track of video/, timeline(track({"OTIO_SCHEMA" => "Clip.1"})) => /a source_range or an available_range at tracks/,
     timeline(track(clip("a", 0, -4))) => /a duration of 0 or more/, timeline({"OTIO_SCHEMA" => "Track.1", "kind" => "Video"}) => /a list at tracks\.children\[0\]\.children/}.each do |document, words|
      expect { list(document) }.to raise_error(Mordant::FormatError, words), words.inspect
    end
  end

  it "gives back the events of the demo cut's own writer" do
    code = ->(frames) { Mordant::Cut::Timecode.new(frames, 24r) }
    items = [["a", 10, 20, 0], ["b", 5, 30, 6]].map { |name, start, length, mixed| Mordant::Cut::Written.new(name:, url: "#{name}.mov", source_in: code[start], length:, available: [code[0], 100], dissolve: mixed, record_in: code[86_400]) }
    found = list(Mordant::Cut::OpenTimeline.write(items, name: "X"))
    expect([rows(found), found.events[1].transition.length]).to eq([[["a", 10, 30, 0, 20], ["b", 5, 35, 20, 30]], 6])
  end
end
