# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Cut::Changes, :folder do
  # A picture whose columns have moved, as when the camera is swung round.
  def swung(picture, by) = picture[true, Array.new(Programmes::WIDTH) { |x| (x + by) % Programmes::WIDTH }, true].dup

  # How many of some changes are among others: cuts to the frame, what takes time within three at both ends.
  def share(some, others)
    near = ->(a, b) { a["kind"] == b["kind"] && ((a["kind"] == "cut") ? a["frame"] == b["frame"] : [0, a["length"]].zip([0, b["length"]]).all? { |x, y| (a["frame"] + x - b["frame"] - y).abs <= 3 }) }
    some.count { |one| others.any? { |other| near[one, other] } } / some.size.to_f
  end

  let(:programme) do
    Programmes.new
      .add("1A", 40).add("1B", 34).add("1C", 46, into: 16).add("2A", 30)
      .add("2B", 30) { |picture, frame| frame.between?(9, 10) ? picture * 0.3 + 180 : picture } # two frames of a flash
      .add("1D", 40) { |picture, frame| swung(picture, [frame - 12, 0].max.clamp(0, 9) * 26) } # a whip pan
      .add("3A", 50, into: 24).fade("3D", 36, down: 8, hold: 4, up: 6).add("2C", 36, into: 12)
      .add("2D", 36) { |picture, frame| (frame.between?(14, 24) && frame.even?) ? picture * 0.2 : picture } # a strobe
      .add("3B", 40).fade("1A", 36, down: 10, hold: 0, up: 10, level: 255.0).add("1B", 9).add("1C", 7).add("2A", 24)
  end

  it "finds every cut, dissolve and fade, and takes neither flashes nor fast movement for one" do
    path = programme.write(File.join(@folder, "programme.mp4"))
    output = StringIO.new
    expect(Mordant::CommandLine.run(["cuts", path], output:)).to eq(0)
    answer = JSON.parse(output.string)
    expect([answer.keys, answer["rate"], answer["frames"]]).to eq([%w[rate frames changes], "24/1", programme.length])
    of = ->(list, kind) { list.select { |change| change["kind"] == kind } }
    %w[cut dissolve fade].each do |kind|
      truth, found = of[programme.truth, kind], of[answer["changes"], kind]
      expect([kind, share(truth, found), share(found, truth)]).to eq([kind, 1.0, 1.0]), "#{kind}: #{truth} found as #{found}"
    end
    whole = described_class.of(path).map(&:to_h)
    stub_const("Mordant::Cut::Changes::PART", 300)
    expect(described_class.of(path).map(&:to_h)).to eq(whole) # however it is divided
  end

  it "finds nothing in a still, and says of a file that is none what is wrong" do
    path = Programmes.new.add("1A", 30) { |_, frame| Numo::SFloat.new(Programmes::HEIGHT, Programmes::WIDTH, 3).fill(40 + frame) }.write(File.join(@folder, "grey.mp4"))
    expect(described_class.of(path)).to eq([])
    File.write(File.join(@folder, "x.mp4"), "none")
    expect { described_class.of(File.join(@folder, "x.mp4")) }.to raise_error(Mordant::MediaError, /x\.mp4/)
  end
end
