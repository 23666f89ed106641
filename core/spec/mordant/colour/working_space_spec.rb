# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Colour::WorkingSpace do
  subject(:space) { described_class.default }

  it "lays its tone axis from no light to where the SDR rendering is white" do
    expect(space.black).to be_within(1e-9).of(0.0729055341958355)
    expect(space.middle).to be_within(1e-6).of(0.4135884)
    white = Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD).run(Frames.flat([space.white] * 3)).at(0, 0)
    expect(white.to_a).to all(be_within(0.01).of(1.0))
  end

  it "encodes and decodes single values" do
    [-0.01, 0.0, 0.005, 0.18, 1.0, 60.0].each { |light| expect(space.decode(space.encode(light))).to be_within(1e-9).of(light) }
  end

  it "has weights that add up to one" do
    expect(space.luminance_weights.sum).to be_within(1e-9).of(1.0)
  end
end

RSpec.describe Mordant::Colour::Adaptation do
  it "takes one white to the other, by both methods" do
    d65, aces = Mordant::Colour::White::D65, Mordant::Colour::White::ACES
    %i[bradford cat02].each do |method|
      matrix = described_class.matrix(aces, d65, method)
      expect(Mordant::Colour::Matrix3.apply(matrix, described_class.xyz(aces))).to match(described_class.xyz(d65).map { |x| be_within(1e-12).of(x) })
      expect(Mordant::Colour::Matrix3.multiply(matrix, described_class.matrix(d65, aces, method))).to match_rows(Mordant::Pointwise::Matrix::IDENTITY, absolute: 1e-12)
    end
    expect(described_class.matrix(d65, d65)).to eq(Mordant::Pointwise::Matrix::IDENTITY)
  end
end

RSpec.describe Mordant::Colour::Registry do
  it "names what it does not know, and everything it does" do
    expect { Mordant::Colour::Rendering.fetch("x") }.to raise_error(Mordant::UnknownIdError) { |error| expect([error.family, error.id]).to eq(%w[rendering x]) }
    expect { Mordant::Steps.fetch("x") }.to raise_error(Mordant::UnknownIdError, /there are average, balance/)
    expect { Mordant::Deliver::Format.fetch("x") }.to raise_error(Mordant::UnknownIdError, /av1, dpx-10/)
  end

  it "gives every member an id of its own" do
    [Mordant::Colour::Encoding, Mordant::Colour::Rendering, Mordant::Deliver::Format, Mordant::Steps].each do |family|
      ids = family.all.map(&:id)
      expect(ids).to eq(ids.uniq.sort)
    end
  end
end
