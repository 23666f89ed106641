# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Colour::OwnEncodings do
  include_context "with a library"

  sound = <<~YAML
    id: harbour-log
    label: Harbour log
    source: measured on the quay
    primaries: {red: [0.684, 0.313], green: [0.221, 0.848], blue: [0.0861, -0.102], white: [0.3127, 0.3290]}
    adaptation: cat02
    mid_grey: 0.391
    curve:
      kind: log
      a: 5.555556
      b: 0.052272
      c: 0.247190
      d: 0.385537
      e: 5.367655
      f: 0.092809
      cut: 0.010591
  YAML

  def write(text, name: "harbour-log.yml") = File.write(File.join(Mordant::Library.encodings, name), text)

  def fault(text)
    write(text)
    Mordant::Colour.encoding("harbour-log")
  rescue Mordant::FormatError => e
    e.message.sub("#{@folder}/encodings/", "")
  end

  it "converts as the built-in encoding of the same numbers does" do
    write(sound)
    rgb = Numo::DFloat.new(3, 50).rand
    made, known = %w[harbour-log logc3-ei800-wg3].map { |from| Mordant::Colour::Conversion.new(from:, to: "acescct").chain.exact(rgb) }
    expect(made).to eq(known)
    expect(Mordant::Colour::Encoding.all.select(&:own?).map(&:id)).to eq(["harbour-log"])
  end

  it "is read again when its file changes" do
    write(sound)
    before = Mordant::Colour.encoding("harbour-log")
    write(sound.sub("Harbour log", "Harbour log, second try"))
    expect(Mordant::Colour.encoding("harbour-log").label).not_to eq(before.label)
  end

  it "takes points, gammas and legal-range codes" do
    write(sound.sub(/curve:.*/m, "curve: {kind: points, points: [[0, -0.1], [0.39, 0.18], [1, 40]]}"))
    points = Mordant::Colour.encoding("harbour-log")
    expect(points.mid_grey).to be_within(1e-9).of(0.39)
    code = Numo::DFloat[-0.2, 0.0, 0.2, 0.39, 0.7, 1.0, 1.4]
    expect((points.transfer.encode(points.transfer.decode(code)) - code).abs.max).to be < 1e-12
    write(sound.sub(/mid_grey.*/m, "codes: legal\ncurve: {kind: gamma, gamma: 2.4}"))
    expect(Mordant::Colour.encoding("harbour-log").transfer.decode(Numo::DFloat[940.0 / 1023])[0]).to be_within(1e-12).of(1.0)
  end

  {
    "a number that is none" => [sound.sub("5.367655", "five"), /\Aharbour-log.yml:13: expected e: a finite number, found "five"/],
    "an unknown name" => [sound.sub("adaptation", "adaption"), /\Aharbour-log.yml:5: expected one of id,.* found "adaption"/],
    "broken YAML" => ["id: [", /\Aharbour-log.yml:\d: expected a mapping/],
    "a list" => ["- 1", /:1: expected a mapping/],
    "a missing curve" => [sound.sub(/curve:.*/m, ""), /expected curve: a mapping, found "nothing of that name"/],
    "another id than its name" => [sound.sub("harbour-log", "quay-log"), /:1: expected id: harbour-log, as the file is named, found "quay-log"/],
    "a mid grey its numbers do not give" => [sound.sub("0.391", "0.5"), /:6: expected a curve that takes light 0.18 to the stated code 0.5, found 0.391/],
    "a curve that falls" => [sound.sub(/curve:.*/m, "curve: {kind: points, points: [[0, 1], [1, 0]]}").sub(/mid_grey.*\n/, ""), /both rising/],
    "primaries on a line" => [sound.sub("[0.221, 0.848]", "[0.684, 0.313]"), /span a gamut/],
    "infinity" => [sound.sub("0.052272", ".inf"), /b: a finite number/]
  }.each do |what, (text, words)|
    it "refuses #{what}, with the line" do
      expect(fault(text)).to match(words)
      expect(described_class.new.faults.size).to eq(1)
    end
  end

  it "does not let a file take the id of another encoding" do
    write(sound.sub("harbour-log", "acescct"), name: "acescct.yml")
    expect(Mordant::Colour.encoding("acescct").label).to eq("ACEScct")
    expect(described_class.new.faults.first.message).to include("an id that no encoding has yet")
  end
end
