# frozen_string_literal: true

require "spec_helper"

require "json"

RSpec.describe Mordant::Media::Dpx do
  let(:width) { 18 }
  let(:frame) do
    codes = Numo::SFloat.new(3, width * 8).seq / (3 * width * 8 - 1)
    Mordant::Frame.new(codes, width:, height: 8, encoding: "rec709-bt1886")
  end
  let(:facts) do
    Mordant::Media::FrameFacts.new(rate: Rational(24), timecode: Mordant::Cut::Timecode.parse("02:03:04:05", 24), name: "jetty", source: "a.mov", reel: "H014", project: "Salt", number: 7, count: 40)
  end

  def decoded(bits)
    Dir.mktmpdir do |folder|
      path = File.join(folder, "x.dpx")
      File.binwrite(path, described_class.new(bits:).encode(frame, facts))
      told = JSON.parse(Mordant::Media::Command.run(%W[ffprobe -v error -of json -show_streams -show_frames #{path}], path:))
      yield told, Mordant::Media::Command.run(%W[ffmpeg -v error -i #{path} -f rawvideo -pix_fmt rgb48le -], path:)
    end
  end

  {10 => "gbrp10le", 16 => "rgb48be"}.each do |bits, format|
    it "writes #{bits} bits that another reader gives back, with timecode and colour told" do
      decoded(bits) do |told, bytes|
        expect(told["streams"].first).to include("width" => 18, "height" => 8, "pix_fmt" => format, "color_transfer" => "bt709", "color_primaries" => "bt709")
        expect(told.to_s).to include("02:03:04:05")
        found = Numo::SFloat.cast(Numo::UInt16.from_binary(bytes, [width * 8, 3]).transpose) / 65_535
        expect((found - frame.rgb).abs.max).to be < 0.6 / (2**bits - 1) + 1e-3 / bits
      end
    end
  end

  # Offsets of SMPTE ST 268-1.
  it "has the fields of its header where the standard puts them" do
    header = described_class.new(bits: 10).header(frame, facts)
    at = ->(place, form) { header.unpack1("@#{place}#{form}") }
    expect(header.bytesize).to eq(2048)
    expect([at[0, "a4"], at[4, "N"], at[8, "Z8"], at[16, "N"], at[24, "N"], at[28, "N"], at[36, "Z100"], at[260, "Z200"], at[660, "N"]])
      .to eq(["SDPX", 2048, "V2.0", 2048 + 18 * 8 * 4, 1664, 384, "jetty", "Salt", 0xffffffff])
    expect([at[770, "n"], at[772, "N"], at[776, "N"], at[800, "C"], at[801, "C"], at[802, "C"], at[803, "C"], at[804, "n"], at[808, "N"]])
      .to eq([1, 18, 8, 50, 6, 6, 10, 1, 2048])
    expect([at[1424, "N"], at[1432, "Z100"], at[1556, "Z32"], at[1712, "N"], at[1716, "N"], at[1724, "g"], at[1920, "N"], at[1940, "g"]])
      .to eq([18, "a.mov", "H014", 7, 40, 24.0, 0x02030405, 24.0])
  end

  it "is of 10 or 16 bits" do
    expect { described_class.new(bits: 12) }.to raise_error(Mordant::ParameterError, /10 or 16/)
  end
end
