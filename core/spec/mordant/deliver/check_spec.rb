# frozen_string_literal: true

require "spec_helper"
require "json"
require "nokogiri"

RSpec.describe Mordant::Deliver::Check, :folder do
  let(:start) { Mordant::Cut::Timecode.parse("10:00:00:00", Rational(24)) }
  let(:view) { Mordant::Grade::View.new(encoding: "srgb") }

  def sheet(format) = Mordant::Deliver::Sheet.new({"format" => format, "view" => view, "dither" => false}, width: 64, height: 36)

  def frame(level) = Mordant::Frame.new(Numo::SFloat.new(3, 64 * 36).seq / (64 * 36 * 6) + level, width: 64, height: 36, encoding: "srgb")

  # Frame 3 is black, 5 stands still.
  def write(writer)
    writer.open
    levels = [0.1, 0.2, 0.3, nil, 0.4, 0.4, 0.5, 0.3]
    levels.each_with_index do |level, record|
      facts = Mordant::Media::FrameFacts.new(rate: Rational(24), timecode: start + record, name: "x")
      writer.write(record, level ? frame(level) : frame(0).with(Numo::SFloat.zeros(3, 64 * 36)), facts)
    end
  end

  def sequence = Mordant::Deliver::SequenceWriter.new(sheet("dpx-10"), path: File.join(@folder, "seq"), start:, first: 0).tap { |writer| write(writer) }

  it "finds nothing but black and standing frames in what is whole, a sequence or a video" do
    film = Mordant::Deliver::VideoWriter.new(sheet("ffv1"), path: File.join(@folder, "film.mkv"), rate: Rational(24), first: 0)
    write(film)
    film.seal(0, 8)
    film.finish(timecode: start)
    [sequence, film].each do |writer|
      found = described_class.new(writer, rate: Rational(24), first: 0, count: 8).call
      expect(found).to include(expected: 8, found: 8, missing: [], undecodable: [], black: [[3, 1]], still: [[5, 1]])
    end
  end

  it "does not take dark light for black" do
    light = Mordant::Deliver::Sheet.new({"format" => "exr-float", "view" => Mordant::Grade::View::MASTER}, width: 64, height: 36)
    writer = Mordant::Deliver::SequenceWriter.new(light, path: File.join(@folder, "light"), start:, first: 0).tap(&:open)
    [0.01, 0.0].each_with_index { |level, record| writer.write(record, Mordant::Frame.new(Numo::SFloat.new(3, 64 * 36).fill(level), width: 64, height: 36, encoding: "aces2065-1"), Mordant::Media::FrameFacts.new(rate: Rational(24), timecode: start)) }
    expect(described_class.new(writer, rate: Rational(24), first: 0, count: 2).call).to include(found: 2, black: [[1, 1]])
  end

  it "lists frames that are missing, damaged or were left out, by shot and timecode" do
    writer = sequence
    [1, 2].each { |record| File.delete(writer.file(record)) }
    File.delete(writer.file(7))
    File.truncate(writer.file(6), 100)
    found = described_class.new(writer, rate: Rational(24), first: 0, count: 8, lost: [7]).call
    expect(found).to include(found: 5, missing: [[1, 2]], undecodable: [[6, 1]], lost: [[7, 1]])
    report = Mordant::Deliver::Report.new({name: "seq", statement: "to", from: "<from>", beyond: [[2, 0.01], [3, 0.2], [5, 0.00002]], light: {cll: 812.4, fall: 90.0}, **found}, place: ->(record) { ["1A", (start + record).to_s] })
    expect(report.faults).to match([/1A 10:00:00:01, 2 frames: not there/, /1A 10:00:00:06: cannot be decoded/, /1A 10:00:00:07: left out/])
    expect(report.notices).to include(/10:00:00:03: black/).and include("1A 10:00:00:02, 2 frames: up to 20.00 % of the pixels beyond range or gamut", "1A 10:00:00:05: less than 0.01 % of the pixels beyond range or gamut")
    expect(JSON.parse(report.to_json)).to include("passed" => false, "found" => 5, "light" => {"cll" => 812.4, "fall" => 90.0})
    expect(report.to_html).to include("3 faults", "&lt;from&gt;", "MaxCLL 812.4").and include(found[:checksums].first[:md5])
  end

  it "tells of a shot that is held again and again in one line" do
    still = [[1, 2], [4, 1], [7, 2], [9, 1], [20, 3]]
    report = Mordant::Deliver::Report.new({black: [], still:, checksums: []}, place: ->(record) { [(record < 12) ? "1A" : "1B", (start + record).to_s] })
    expect(report.notices).to eq(["1A 10:00:00:01 and 3 more places of the shot, 6 frames in all: the same as the frame before", "1B 10:00:00:20, 3 frames: the same as the frame before"])
  end

  it "keeps a chain of hash lists" do
    writer = sequence
    list = Mordant::Deliver::MediaHashList.new(@folder)
    sums = described_class.new(writer, rate: Rational(24), first: 0, count: 8).checksums
    paths = [list.write(sums, at: Time.utc(2026, 1, 2, 3, 4, 5)), list.write(sums.first(1), at: Time.utc(2026, 1, 2, 3, 4, 6))]
    expect(paths.map { |path| File.basename(path)[0, 5] }).to eq(%w[0001_ 0002_])
    first = Nokogiri::XML(File.read(paths[0]))
    expect([first.root.namespace.href, first.root["version"], first.css("hash").size]).to eq(["urn:ASC:MHL:v2.0", "2.0", 8])
    expect(first.at_css("hash path").text).to eq("seq/seq.0864000.dpx")
    expect(first.at_css("hash path")["size"]).to eq(File.size(writer.file(0)).to_s)
    chain = Nokogiri::XML(File.read(File.join(@folder, "ascmhl/ascmhl_chain.xml")))
    expect(chain.css("hashlist c4").map(&:text)).to eq(paths.map { |path| Mordant::Deliver::MediaHashList.c4(File.binread(path)) })
  end

  # Of SMPTE ST 2114: the id of nothing at all.
  it "writes C4 ids as published" do
    expect(Mordant::Deliver::MediaHashList.c4("")).to eq("c459dsjfscH38cYeXXYogktxf4Cd9ibshE3BHUo6a58hBXmRQdZrAkZzsWcbWtDg5oQstpDuni4Hirj75GEmTc1sFT")
  end
end
