# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Scopes::Beyond do
  # Light of P3-D65, from its chromaticities (SMPTE EG 432-1, D65), as codes of BT.2020 (BT.2100 PQ) at so much light.
  let(:p3_in_bt2020) { [[0.753833, 0.198597, 0.047570], [0.045744, 0.941777, 0.012479], [-0.001210, 0.017602, 0.983609]] }

  def codes(*lights, encoding: "rec2100-pq")
    rgb = Numo::DFloat.cast(lights).transpose.dup
    Mordant::Frame.new(Numo::SFloat.cast(Mordant::Colour.encoding(encoding).transfer.encode(rgb)), width: lights.size, height: 1, encoding:)
  end

  def p3(light) = p3_in_bt2020.map { |row| row.zip(light).sum { |a, b| a * b } }

  def places(frame) = described_class.places(Mordant::Scopes::Signal.new(frame)).to_a

  it "marks colours of BT.2020 that P3-D65 does not hold, at any light, and none that it holds" do
    inside = [[1, 0, 0], [0, 1, 0], [0, 0, 1], [1, 1, 0], [1, 1, 1], [0.2, 0.1, 0.7]].flat_map { |light| [0.1, 1.0, 9.0].map { |times| p3(light).map { |value| value * times } } }
    expect(places(codes(*inside))).to all(eq(0.0))
    expect(places(codes([1, 0, 0], [0, 5, 0], [0, 0, 0.3], [0.02, 1, 0.02], [0, 0, 0]))).to eq([1.0, 1.0, 1.0, 1.0, 0.0])
    expect(described_class.share(Mordant::Scopes::Signal.new(codes([1, 0, 0], [1, 1, 1])))).to eq(0.5)
  end

  it "has nothing to say of views that hold no more than P3-D65, nor of scene light" do
    expect(%w[rec2100-pq rec709-bt1886 srgb p3-d65-st2084 aces2065-1].map { |encoding| described_class.wider?(encoding) }).to eq([true, false, false, false, false])
    expect(places(codes([1, 0, 0], encoding: "rec709-bt1886"))).to eq([0.0])
  end

  it "hatches them in the picture and leaves all else" do
    frame = codes(*([[0, 1, 0]] * 8), *([[1, 1, 1]] * 8))
    painted = described_class.paint(frame, Mordant::Scopes::Signal.new(frame))
    expect((painted.rgb - frame.rgb).abs.max(axis: 0).to_a.map(&:positive?)).to eq([true] * 4 + [false] * 12)
  end
end
