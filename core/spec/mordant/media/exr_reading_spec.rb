# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Media::ExrHeader, :folder do
  let(:frame) do
    ramp = Numo::SFloat.new(64).seq / 8 - 0.5 # -0.5 to 7.4, in equal columns
    plane = Numo::SFloat.zeros(36, 64) + ramp
    Mordant::Frame.new(Numo::SFloat.vstack([plane.reshape(1, 64 * 36), plane.reshape(1, 64 * 36) * 2, plane.reshape(1, 64 * 36) * 0.5]), width: 64, height: 36, encoding: "acescg")
  end
  let(:timecode) { Mordant::Cut::Timecode.parse("10:00:00:05", 25r) }

  def run(numbers, **how)
    exr = Mordant::Media::EXR.new(primaries: Mordant::Colour::Primaries::AP1, rate: 25r, timecode:, attributes: {"reelName" => "E001"}, **how)
    numbers.each { |number| File.binwrite(File.join(@folder, "plate.#{number}.exr"), exr.encode(frame)) }
    File.join(@folder, "plate.[#{numbers.min}-#{numbers.max}].exr")
  end

  [{depth: :half, compression: :zip}, {depth: :float, compression: :zip}, {depth: :half, compression: :none}].each do |how|
    it "takes in #{how.values.join(", ")}, with its primaries, rate, reel and timecode" do
      path = run(1001..1003, **how)
      facts = Mordant::Media::Probe.call(path)
      expect(facts).to have_attributes(encoding: "acescg", rate: 25r, reel: "E001", start: "10:00:00:05", frames: 3, width: 64, height: 36)
      codes = Mordant::Media::Reader.new(path, facts:).frame(1, width: 64, height: 36)
      values = Mordant::Colour::Transfer::HalfCode.table[codes.rgb]
      expect((values - frame.rgb).abs.max).to be < 8 * 2.0**-11
      expect([values.min, values.max]).to match([be < -0.9, be > 14])
    end
  end

  it "refuses a head that is cut off, and files that are none" do
    path = run([1001])
    one = File.join(@folder, "plate.1001.exr")
    whole = File.binread(one)
    [whole.byteslice(0, 60), "v/1\x01".b + ("x" * 400), "PNG"].each do |bytes|
      File.binwrite(one, bytes)
      expect { described_class.new(one) }.to raise_error(Mordant::MediaError, /plate.1001.exr: .*copy it again/)
    end
    expect(path).to include("[1001-1001]")
  end
end
