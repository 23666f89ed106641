# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Colour::CDLDocument, :folder do
  def reading(text)
    path = File.join(@folder, "try.ccc")
    File.write(path, text)
    described_class.read(path)
  end

  let(:first) { Mordant::Colour::CDL.new(slope: [1.1, 1, 0.95], offset: [0.01, -0.02, 0], power: [1, 1.2, 0.9], saturation: 1.05, id: "1A", description: "warm & dry") }
  let(:second) { Mordant::Colour::CDL.new(id: "1B") }

  it "reads what it writes, in all three kinds" do
    %w[ccc cdl].each { |format| expect(reading(described_class.write([first, second], format:))).to eq([first, second]) }
    read = reading(described_class.write([first], format: "cc")).first
    expect([read, read.id, read.description]).to eq([first, "1A", "warm & dry"])
    expect { described_class.write([first, second], format: "cc") }.to raise_error(Mordant::ParameterError, /one for a .cc/)
  end

  it "takes corrections without namespace, and what is left out as neutral" do
    text = "<ColorCorrectionCollection><ColorCorrection id=\"x\"><SatNode><Saturation>0.5</Saturation></SatNode></ColorCorrection></ColorCorrectionCollection>"
    expect(reading(text)).to eq([Mordant::Colour::CDL.new(saturation: 0.5)])
  end

  it "names the line of a fault" do
    text = "<ColorCorrectionCollection>\n<ColorCorrection id='a'/>\n<ColorCorrection id='b'><SOPNode>\n<Slope>1 one 1</Slope></SOPNode></ColorCorrection>\n</ColorCorrectionCollection>"
    expect { reading(text) }.to raise_error(Mordant::FormatError, /try.ccc:4: expected finite numbers in Slope, found "one"/)
  end

  {
    "XML that ends" => ["<ColorCorrectionCollection><ColorCorrection>", /well-formed/],
    "another document" => ["<html/>", /ColorCorrection/],
    "a document type" => ["<!DOCTYPE x [<!ENTITY a \"b\">]><ColorCorrection/>", /without a document type/],
    "two numbers of three" => ["<ColorCorrection id=\"q\"><SOPNode><Slope>1 1</Slope></SOPNode></ColorCorrection>", /3 numbers in Slope/],
    "NaN" => ["<ColorCorrection><SatNode><Saturation>NaN</Saturation></SatNode></ColorCorrection>", /finite numbers in Saturation/],
    "a slope below 0" => ["<ColorCorrection id=\"q\"><SOPNode><Slope>-1 1 1</Slope></SOPNode></ColorCorrection>", /slope of q/]
  }.each do |name, (text, expected)|
    it "refuses #{name}" do
      expect { reading(text) }.to raise_error(Mordant::FormatError) { |error| expect(error.expected).to match(expected) }
    end
  end
end
