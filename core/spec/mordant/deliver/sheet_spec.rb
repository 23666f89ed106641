# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Deliver::Sheet do
  def sheet(**document) = described_class.new({"format" => "dpx-10", "view" => Mordant::Grade::View::STANDARD.to_h.compact.transform_keys(&:to_s), **document.transform_keys(&:to_s)}, width: 1920, height: 1080)

  it "takes what the project has where nothing is said, and says in a line what is made" do
    expect(sheet).to have_attributes(width: 1920, height: 1080, range: "full", fit: "bars", look: 1.0, graded?: true, warnings: [])
    expect(sheet(format: "h264", width: 960, height: 540).statement).to include("BT.709", "960x540", "legal range", "tagged bt709 / bt709 / bt709")
    expect(described_class.new(sheet(mask: 2.39, burns: [{"text" => "{shot}"}]).to_h, width: 10, height: 10).to_h).to eq(sheet(mask: 2.39, burns: [{"text" => "{shot}"}]).to_h)
  end

  it "warns before floats go into whole numbers, and refuses what cannot be" do
    light = {"encoding" => "aces2065-1"}
    expect(sheet(view: light).warnings.first).to match(/needs floats/)
    expect(sheet(view: light, format: "exr-half").warnings).to be_empty
    {{format: "gif"} => "format", {width: 3} => "output.width", {fit: "stretch"} => "output.fit", {mask: 9} => "output.mask", {range: "some"} => "output.range", {look: 2} => "output.look",
     {graded: "yes"} => "output.graded", {safe: [2]} => "output.safe", {format: "hdr10"} => "output.format", {options: {"x" => "y"}} => "output.options",
     {format: "exr-half", options: {"compression" => "rle"}} => "output.options.compression", {burns: [{"text" => "{film}"}]} => "output.burns[0].text",
     {burns: [{"text" => "a", "x" => 2}]} => "output.burns[0].x", {film: 1} => "output"}.each do |document, path|
      expect { sheet(**document) }.to raise_error(Mordant::Error) { |e| expect(e.respond_to?(:path) ? e.path : e.family).to eq(path) }, document.inspect
    end
  end
end

RSpec.describe Mordant::Deliver::Fit do
  let(:frame) { Mordant::Frame.new(Numo::SFloat.new(3, 64 * 36).fill(0.5), width: 64, height: 36, encoding: "srgb") }

  def fitted(**document) = described_class.call(frame, Mordant::Deliver::Sheet.new({"format" => "png-16", "view" => {"encoding" => "srgb"}, **document.transform_keys(&:to_s)}, width: 64, height: 36))

  it "leaves a picture of the right raster alone" do
    expect(fitted).to equal(frame)
  end

  it "puts bars around it or cuts it off, and covers what an aspect mask covers" do
    bars = fitted(width: 64, height: 64)
    expect([bars.width, bars.height, bars.at(32, 5).to_a, bars.at(32, 32).to_a]).to match([64, 64, [0.0] * 3, all(be_within(1e-6).of(0.5))])
    crop = fitted(width: 32, height: 36, fit: "crop")
    expect([crop.width, crop.height, crop.rgb.min]).to match([32, 36, be_within(1e-6).of(0.5)])
    masked = fitted(mask: 2.0)
    expect([masked.at(5, 0)[0], masked.at(5, 2)[0], masked.at(5, 33)[0], masked.at(5, 35)[0]]).to eq([0.0, 0.5, 0.5, 0.0])
    expect(fitted(safe: [0.5]).at(16, 12)[0]).to be_within(1e-6).of(0.6)
  end
end

RSpec.describe Mordant::Deliver::BurnIn do
  let(:frame) { Mordant::Frame.new(Numo::SFloat.new(3, 160 * 90).fill(0.4), width: 160, height: 90, encoding: "srgb") }

  it "draws tokens where they are put, and nothing elsewhere" do
    burns = described_class.new([{"text" => "{timecode}", "x" => 1.0, "y" => 1.0, "size" => 0.12}])
    drawn = burns.draw(frame, timecode: "01:00:00:00")
    changed = (drawn.rgb - frame.rgb).abs[0, true].reshape(90, 160)
    expect([changed[0...70, true].max, changed[true, 0...40].max]).to eq([0.0, 0.0])
    expect(changed[75.., 60..].max).to be > 0.3
    expect(burns.draw(frame, timecode: "01:00:00:01").rgb.to_a).not_to eq(drawn.rgb.to_a)
    expect(described_class.new([]).draw(frame, {})).to equal(frame)
    expect { described_class.new([{"text" => "<b>&", "size" => 0.4}]).draw(frame, {}) }.not_to raise_error
    described_class::PRESETS.each_value { |items| expect(described_class.new(items)).not_to be_empty }
  end
end

RSpec.describe Mordant::Deliver::Dither do
  it "keeps the mean of what lies between two codes, within one code, the same every time" do
    frame = Mordant::Frame.new(Numo::SFloat.new(3, 40_000).fill(0.5003), width: 200, height: 200, encoding: "srgb")
    codes = Mordant::Media::Integers.interleave(frame, 8, dither: described_class.new(7))
    expect([codes.min, codes.max]).to eq([127, 128])
    expect(Numo::DFloat.cast(codes).mean).to be_within(0.01).of(0.5003 * 255)
    expect(Mordant::Media::Integers.interleave(frame, 8, dither: described_class.new(7)).to_a).to eq(codes.to_a)
    expect(Mordant::Media::Integers.interleave(frame, 8, dither: described_class.new(8)).to_a).not_to eq(codes.to_a)
    black = frame.with(Numo::SFloat.zeros(3, 40_000))
    expect(Mordant::Media::Integers.interleave(black, 10, dither: described_class.new(1)).max).to be <= 1
  end
end
