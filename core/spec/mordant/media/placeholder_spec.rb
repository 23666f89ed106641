# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Media::Placeholder do
  def picture(lines, width: 320, height: 180) = described_class.new(lines).frame(7, width:, height:)

  it "is black, or says what is missing in the middle of a frame" do
    expect(picture([]).rgb.max).to eq(0)
    slate = picture(["H014_1A", "reel H014"]).rgb[0, true].reshape(180, 320)
    expect(slate[0..5, true].to_a.flatten.uniq).to eq([described_class::GROUND])
    expect(slate[70...110, 100...220].max).to be > 40_000
    expect(picture(["other"]).rgb).not_to eq(picture(["another"]).rgb)
  end

  it "reads as a clip does, any name and raster" do
    count = 0
    described_class.new(["<b>&</b>" * 30, "ü\u{1F600}"]).each(first: 2_000_000, count: 3, width: 33, height: 17) { |codes| count += codes.rgb.shape[1] }
    expect(count).to eq(3 * 33 * 17)
  end
end

RSpec.describe Mordant::Media::Reader, :folder do
  # White, 64x36 wide, in a file of another shape.
  def read(fit, width, height)
    path = File.join(@folder, "white.mkv")
    system("ffmpeg", "-v", "error", "-y", "-f", "lavfi", "-i", "color=white:s=40x40:r=24,trim=end_frame=2,format=gbrp10le", "-c:v", "ffv1", path, exception: true)
    described_class.new(path, fit:).frame(1, width:, height:).rgb[0, true].reshape(height, width)
  end

  it "shows a clip of another shape whole with bars, filled, or stretched" do
    lit = ->(plane) { [plane[true, plane.shape[1] / 2], plane[plane.shape[0] / 2, true]].map { |line| (0...line.size).select { |at| line[at] > 60_000 }.minmax } }
    expect(lit[read("inside", 64, 36)]).to eq([[0, 35], [14, 49]])
    expect(lit[read("inside", 36, 64)]).to eq([[14, 49], [0, 35]])
    expect(lit[read("fill", 64, 36)]).to eq([[0, 35], [0, 63]])
    expect(lit[read("stretch", 64, 36)]).to eq([[0, 35], [0, 63]])
    expect(read("inside", 64, 64)).to eq(read("stretch", 64, 64))
  end
end
