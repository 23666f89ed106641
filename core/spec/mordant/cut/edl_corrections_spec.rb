# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Cut::EDLCorrections do
  def reading(text) = described_class.new("try.edl", text).corrections

  let(:cdl) { Mordant::Colour::CDL.new(slope: [1.1, 1.0, 0.95], offset: [0.01, -0.02, 0.0], power: [1.0, 1.2, 0.9], saturation: 1.05) }

  it "reads what is written, event by event" do
    code = ->(text) { Mordant::Cut::Timecode.parse(text, Rational(24)) }
    first = Mordant::Cut::Written.new(reel: "A001", source_in: code["01:00:00:00"], record_in: code["01:00:00:00"], length: 48, name: "a.mov", cdl:)
    second = Mordant::Cut::Written.new(reel: "B002", source_in: code["01:00:00:00"], record_in: code["01:00:02:00"], length: 48, dissolve: 12, name: "b.mov", cdl: Mordant::Colour::CDL.new(saturation: 0.5))
    found = reading(Mordant::Cut::EDL.write("TRY", [first, second]))
    expect(found.map(&:cdl)).to eq([cdl, Mordant::Colour::CDL.new(saturation: 0.5)])
    expect(found.map { |one| [one.event, one.reel, one.clip_name] }).to eq([%w[001 A001 a.mov], %w[002 B002 b.mov]])
  end

  it "takes other spacings, and leaves events without corrections out" do
    text = "TITLE: X\n001 A V C 00:00:00:00 00:00:01:00 00:00:00:00 00:00:01:00\n002 B V C 00:00:00:00 00:00:01:00 00:00:01:00 00:00:02:00\n*ASC_SOP (1 1 1) (0,0,0) (1 1 1)\n*ASC_SAT: 0.9\n"
    expect(reading(text).map { |one| [one.reel, one.cdl.saturation] }).to eq([["B", 0.9]])
  end

  event = "001 A V C 00:00:00:00 00:00:01:00 00:00:00:00 00:00:01:00\n"
  {
    "no events" => ["TITLE: X\n", /:1: expected events/],
    "a correction before any event" => ["* ASC_SAT 1\n", /:1: expected an event before/],
    "two rows of three" => ["#{event}* ASC_SOP (1 1 1)(0 0 0)\n", /:2: expected \(s s s\)\(o o o\)\(p p p\)/],
    "a word for a number" => ["#{event}* ASC_SOP (1 1 one)(0 0 0)(1 1 1)\n", /:2: expected 3 finite numbers, found "1 1 one"/],
    "infinity" => ["#{event}* ASC_SAT inf\n", /:2: expected 1 finite number/],
    "a power of 0" => ["#{event}* ASC_SOP (1 1 1)(0 0 0)(0 1 1)\n", /:2: expected power to be/]
  }.each do |name, (text, words)|
    it "refuses #{name}, with the line" do
      expect { reading(text) }.to raise_error(Mordant::FormatError) { |error| expect(error.message).to match(words) }
    end
  end
end
