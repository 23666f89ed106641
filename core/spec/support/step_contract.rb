# frozen_string_literal: true

# What every step keeps to.
RSpec.shared_examples "a pointwise step" do
  let(:space) { Mordant::Colour::WorkingSpace.default }
  let(:rgb) { Numo::SFloat[[-0.1, 0.0, 0.18, 0.4], [0.5, 1.0, 2.0, 0.4], [0.02, 0.9, 4.0, 0.4]] }

  it "leaves a picture as it was when neutral, bit for bit" do
    expect(described_class.neutral.apply(rgb)).to eq(rgb)
    expect(described_class.neutral.operations(space)).to be_empty
  end

  it "returns a new, finite [3, n] SFloat and never writes to what it was given" do
    kept = rgb.dup
    out = subject.apply(rgb)
    expect([out.class, out.shape]).to eq([Numo::SFloat, rgb.shape])
    expect(out.isfinite.all?).to be_truthy
    expect(rgb).to eq(kept)
  end

  it "treats a pixel as it treats the whole picture" do
    expect(subject.apply(rgb[true, 1..1].dup)).to eq(subject.apply(rgb)[true, 1..1])
  end

  it "keeps NaN in the pixel it is in" do
    spoiled = rgb.dup
    spoiled[0, 2] = Float::NAN
    expect(subject.apply(spoiled)[true, [0, 1, 3]]).to eq(subject.apply(rgb)[true, [0, 1, 3]])
  end

  it "refuses parameters that are not declared, not finite or out of range, and names them" do
    parameter = described_class.parameters.values.grep(Mordant::Declared::Parameter).first
    odd = parameter ? {parameter.name => Float::NAN, parameter.name.to_s => parameter.range.end + 1} : {}
    {:nothing => 1.0, described_class.parameters.keys.first => nil, **odd}.each do |name, value|
      expect { described_class.new({name => value}) }.to raise_error(Mordant::ParameterError, /parameters/)
    end
  end
end
