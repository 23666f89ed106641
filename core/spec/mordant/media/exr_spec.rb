# frozen_string_literal: true

require "spec_helper"
require "vips"

RSpec.describe Mordant::Media::EXR, :folder do
  let(:path) { File.join(@folder, "one.exr") }
  let(:timecode) { Mordant::Cut::Timecode.parse("01:02:03:04", Rational(24)) }
  let(:exr) { described_class.new(primaries: Mordant::Colour::Primaries::AP0, rate: Rational(24_000, 1001), timecode:, attributes: {"reelName" => "H014"}) }

  # Odd raster: the last block of lines is not full.
  let(:frame) do
    Numo::NArray.srand(3)
    values = Numo::SFloat.new(3, 37 * 21).rand * 8 - 0.5
    values[0, 0] = 60_000.0
    values[1, 0] = 1.0e-6
    Mordant::Frame.new(values, width: 37, height: 21, encoding: "aces2065-1")
  end

  before { File.binwrite(path, exr.encode(frame)) }

  it "is read by an independent reader with the values a half float holds" do
    image = Vips::Image.new_from_file(path)
    expect([image.width, image.height]).to eq([37, 21])
    read = Numo::SFloat.from_binary(image.extract_band(0, n: 3).cast(:float).write_to_memory, [37 * 21, 3]).transpose
    off = (read - frame.rgb).abs
    expect((off / frame.rgb.abs.clip(2.0**-14, nil)).max).to be <= 2.0**-11
  end

  it "is read the same where a picture is large, whose halves and bytes kernels make" do
    large = Mordant::Frame.new(Numo::SFloat.new(3, 1037 * 37).rand * 8 - 0.5, width: 1037, height: 37, encoding: "aces2065-1")
    read = lambda do
      File.binwrite(path, exr.encode(large))
      Numo::SFloat.from_binary(Vips::Image.new_from_file(path).extract_band(0, n: 3).cast(:float).write_to_memory, [large.size, 3]).transpose.dup
    end
    quickly = read.call
    expect(((quickly - large.rgb).abs / large.rgb.abs.clip(2.0**-14, nil)).max).to be <= 2.0**-11
    allow(Mordant::Pointwise::Compiler).to receive(:here?).and_return(false)
    allow(Mordant::Media::Half).to receive(:kernel)
    expect(read.call).to eq(quickly)
  end

  it "carries its attributes" do
    said = Mordant::Media::Command.run(["exrheader", path], path:)
    expect(said).to match(/red   \(0\.7347 0\.2653\)/).and match(/framesPerSecond.*24000\/1001/).and match(/compression.*zip, multi-scanline/)
      .and match(/time 01:02:03:04/).and match(/reelName.*"H014"/).and match(/B, 16-bit floating-point/)
  end
end

RSpec.describe Mordant::Media::Half do
  def back(bits)
    bits.to_a.map do |word|
      sign, exponent, mantissa = (word >> 15).zero? ? 1 : -1, (word >> 10) & 31, word & 1023
      next sign * mantissa * 2.0**-24 if exponent.zero?
      next mantissa.zero? ? sign * Float::INFINITY : Float::NAN if exponent == 31

      sign * (1 + mantissa / 1024.0) * 2.0**(exponent - 15)
    end
  end

  it "rounds to the nearest half, ties to even" do
    values = [0.0, -0.0, 1.0, -2.5, 65_504.0, 65_519.0, 2.0**-24, 2.0**-25, 6.0e-8, 1.0 + 2.0**-11, 1.0 + 3 * 2.0**-11, 0.18]
    wanted = [0.0, 0.0, 1.0, -2.5, 65_504.0, 65_504.0, 2.0**-24, 0.0, 2.0**-24, 1.0, 1.0 + 2.0**-9, 0.1800537109375]
    expect(back(described_class.bits(Numo::SFloat.cast(values)))).to eq(wanted)
  end

  it "takes what is too large to infinity and keeps NaN" do
    found = back(described_class.bits(Numo::SFloat[65_520.0, -1.0e9, Float::INFINITY, Float::NAN]))
    expect(found.first(3)).to eq([Float::INFINITY, -Float::INFINITY, Float::INFINITY])
    expect(found.last).to be_nan
  end

  it "gives back every half there is" do
    words = (0..0x7bff).to_a
    expect(described_class.bits(Numo::SFloat.cast(back(Numo::UInt16.cast(words)))).to_a).to eq(words)
  end
end
