# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Grade::SwatchFile do
  let(:frame) { Mordant::Frame.new(Numo::SFloat.new(3, 24).rand, width: 6, height: 4, encoding: "srgb") }
  let(:png) { Mordant::Media::Png.encode(frame, bits: 16) }
  let(:swatch) { {"name" => "Tide", "folder" => "day/wide", "description" => "höher", "origin" => {"shot" => "1A"}, "steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 0.5}}]} }
  let(:file) { described_class.write(png, swatch) }

  def refused(bytes, words) = expect { described_class.read(bytes) }.to raise_error(Mordant::ParameterError, words)

  it "stays the picture it was, and gives the grade back" do
    found = described_class.read(file)
    expect(found).to include(swatch.except("steps"))
    expect(found["steps"].first).to include("kind" => "balance", "parameters" => include("exposure" => 0.5))
    images = [png, file].map { |bytes| Vips::Image.new_from_buffer(bytes, "") }
    expect((images[0] - images[1]).abs.max).to eq(0)
  end

  it "refuses what is damaged or something else, and says what is wrong" do
    refused("text", /PNG/)
    refused(png, /picture alone/)
    refused(file[0, file.bytesize - 20], /ends too early/)
    place = file.index("iTXt") + 40
    refused(file.dup.tap { |bytes| bytes.setbyte(place, bytes.getbyte(place) ^ 1) }, /checksum/)
    refused(described_class.write(png, swatch.merge("mordant_swatch" => 2)), /version 1/)
    refused(described_class.write(png, swatch.merge("name" => 3)), /name/)
    refused(described_class.write(png, swatch.merge("origin" => {"a" => []})), /origin/)
    refused(described_class.write(png, swatch.merge("steps" => [{"id" => "a", "kind" => "nothing"}])), /kind/)
    refused(Mordant::Media::PngText.put(png, described_class::KEYWORD, "{"), /JSON/)
  end

  it "refuses a picture larger than any that is shown, by its header alone" do
    header = "IHDR" + [60_000, 60_000, 16, 2, 0, 0, 0].pack("NNCCCCC")
    refused(Mordant::Media::PngText::SIGNATURE + [13].pack("N") + header + [Zlib.crc32(header)].pack("N") + png.byteslice(33..), /60000x60000/)
  end

  it "does not unpack more than a swatch may hold" do
    refused(Mordant::Media::PngText.put(png, described_class::KEYWORD, "0" * (described_class::LARGEST + 1)), /longer than/)
  end
end
