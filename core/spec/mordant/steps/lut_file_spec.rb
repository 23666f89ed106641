# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Steps::LutFile do
  include_context "with a library"

  def lattice(size = 17) = Mordant::Lut::Lattice.new(Numo::DFloat.cast(yield(Mordant::Lut::Lattice.nodes(size))).transpose.dup, size:)

  def keep(path, lattice) = Mordant::Lut::Library.store(path, Mordant::Lut::Cube.write(Mordant::Lut::Table.new(lattice:)))

  let(:rgb) { Numo::SFloat.cast(Numo::DFloat.new(3, 200).rand * 0.6 + 0.15) }

  it "leaves a picture as it was until a file is chosen" do
    expect(described_class.neutral).to be_neutral
    expect(described_class.neutral.apply(rgb)).to eq(rgb)
  end

  it "changes nothing with an identity, whatever it expects and returns" do
    keep("plain/identity.cube", lattice { |nodes| nodes })
    %w[acescct logc3-ei800-wg3 logfilm-wgrgb].each do |id|
      out = described_class.new({lut: "plain/identity.cube", expects: id, returns: id}).apply(Numo::SFloat[[0.3, 0.4], [0.35, 0.42], [0.32, 0.5]])
      expect((out - Numo::SFloat[[0.3, 0.4], [0.35, 0.42], [0.32, 0.5]]).abs.max).to be < 2e-5
    end
  end

  it "gives the table what it expects and takes what it returns" do
    keep("to_display.cube", lattice(33) { |nodes| nodes * 0.5 })
    step = described_class.new({lut: "to_display.cube", expects: "logc3-ei800-wg3", returns: "acescct"})
    wanted = Mordant::Colour::Conversion.new(from: "acescct", to: "logc3-ei800-wg3").chain.exact(Numo::DFloat.cast(rgb)) * 0.5
    expect((step.apply(rgb) - wanted.clip(0, 0.5)).abs.max).to be < 2e-5
  end

  it "keeps of it what its strength says, and is baked like any other step" do
    keep("warm.cube", lattice { |nodes| nodes * Numo::DFloat[[1.1], [1.0], [0.9]] })
    plans = [1.0, 0.5, 0.0].map do |strength|
      Mordant::Grade::Plan.new(source: "acescct", recipe: Mordant::Grade::Recipe.new("steps" => [{"id" => "l", "kind" => "lut", "strength" => strength, "parameters" => {"lut" => "warm.cube"}}]))
    end
    full, half, none = plans.map { |plan| plan.chain.call(rgb) }
    expect((half - (full + none) * 0.5).abs.max).to be < 1e-6
    expect(plans.first).to be_pointwise
  end

  it "reads a file again when it has changed" do
    keep("look.cube", lattice { |nodes| nodes })
    step = described_class.new({lut: "look.cube"})
    before = [step.stamps, step.apply(rgb)]
    File.write(File.join(Mordant::Library.luts, "look.cube"), Mordant::Lut::Cube.write(Mordant::Lut::Table.new(lattice: lattice { |nodes| nodes * 0.5 })))
    expect(step.stamps).not_to eq(before[0])
    expect((step.apply(rgb) - before[1] * 0.5).abs.max).to be < 1e-6
  end

  it "says which file is missing or at fault" do
    expect { described_class.new({lut: "gone.cube"}).operations(Mordant::Colour::WorkingSpace.default) }.to raise_error(Mordant::MediaError, /gone.cube: this LUT is not in the library any more/)
    expect { Mordant::Lut::Library.store("bad.cube", "LUT_1D_SIZE 2\n0 0 0\n") }.to raise_error(Mordant::FormatError, /\Abad.cube:2: expected 2 rows/)
    expect(Mordant::Lut::Library.list).to be_empty
  end

  it "keeps to the library and overwrites nothing" do
    ["../x.cube", "/x.cube", "a//x.cube", ".hidden.cube", "x.exe", "a\u0000.cube"].each do |path|
      expect { described_class.new({lut: path}) }.to raise_error(Mordant::ParameterError, /parameters.lut: expected a path below the LUT library/)
      expect { Mordant::Lut::Library.store(path, "") }.to raise_error(Mordant::ParameterError)
    end
    keep("a/look.cube", lattice(2) { |nodes| nodes })
    expect { keep("a/look.cube", lattice(2) { |nodes| nodes }) }.to raise_error(Mordant::ParameterError, /nothing is overwritten/)
    File.symlink("/etc/hostname", File.join(Mordant::Library.luts, "out.cube"))
    expect { Mordant::Lut::Library.fetch("out.cube") }.to raise_error(Mordant::ParameterError, /within the library/)
    expect { described_class.new({expects: "nowhere"}) }.to raise_error(Mordant::ParameterError, /parameters.expects: expected the id of an encoding/)
  end
end
