# frozen_string_literal: true

require "spec_helper"

# What becomes of values no picture should hold: NaN stays in the pixel it is in,
# infinities and very large values are held or carried on but never raise, and a pixel
# beside them is as it would be without them.
RSpec.describe "Values no picture should hold" do
  # A picture of three pixels through what sees more than one.
  def reached(step, rgb)
    process = step.process(Mordant::Colour::WorkingSpace.default)
    moment = Mordant::Grade::Moment.of(Mordant::Frame.new(rgb, width: 3, height: 1, encoding: "acescct"))
    (step.class.reach == :time) ? process.call(rgb, [], moment) { rgb } : process.call(rgb, moment)
  end

  odd = {"NaN" => Float::NAN, "infinity" => Float::INFINITY, "minus infinity" => -Float::INFINITY, "the largest float" => 3.4e38, "the least" => -3.4e38,
         "a very large value" => 1.0e9, "a very negative one" => -1.0e9, "a denormal" => 1.0e-40, "minus zero" => -0.0}

  sound = [0.18, 0.4, 0.05]

  # A sound pixel, the odd one, and the sound one again.
  def picture(value, channel, sound)
    rows = Array.new(3) { |row| [sound[row], (row == channel) ? value : sound[row], sound[row]] }
    Numo::SFloat.cast(rows)
  end

  def expect_defined(chain, odd, sound)
    beside = chain.call(Numo::SFloat.cast(sound.map { |x| [x] }))[true, 0].to_a
    odd.each do |name, value|
      3.times do |channel|
        found = chain.call(picture(value, channel, sound))
        expect([found[true, 0].to_a, found[true, 2].to_a]).to eq([beside, beside]), "#{name} in channel #{channel} reaches its neighbours"
        next unless value.to_f.nan?

        expect(found[true, 1].isnan.any?).to be_truthy, "#{name} is lost"
      end
    end
  end

  Mordant::Colour::Encoding.all.select(&:pictures?).each do |encoding|
    it "are defined on the way out of #{encoding.id} and into it" do
      next if encoding.decoding.empty?

      expect_defined(Mordant::Pointwise::Chain.new(encoding.decoding), odd, sound)
      expect_defined(Mordant::Pointwise::Chain.new(encoding.encoding), odd, sound)
    end

    it "never make #{encoding.id} fall with rising light or code" do
      light = Numo::DFloat.cast([-1.0e6, -10.0, -0.1, 0.0, 1.0e-6, 0.001, 0.18, 1.0, 16.0, 200.0, 1.0e4])
      codes = encoding.transfer.encode(light)
      next unless codes.isfinite.all?

      least = %w[l-log-rec2020 n-log-n-gamut].include?(encoding.id) ? -1e-3 : -1e-12
      expect((codes[1..] - codes[0...-1]).min).to be >= least
    end
  end

  Mordant::Colour::Rendering.all.each do |rendering|
    it "are defined through #{rendering.id}" do
      expect_defined(Mordant::Pointwise::Chain.new(rendering.operations), odd, sound)
    end
  end

  Mordant::Steps.all.each do |step|
    it "are defined in the step #{step.id}, every number off its neutral value" do
      values = step.parameters.values.grep(Mordant::Declared::Parameter).to_h do |parameter|
        moved = parameter.neutral + (parameter.range.end - parameter.neutral) * 0.05
        [parameter.name, parameter.channels ? [moved] * parameter.channels.size : moved]
      end
      made = step.new(values)
      next expect(made.operations(Mordant::Colour::WorkingSpace.default)).to be_empty if made.neutral?
      next expect(reached(made, picture(Float::NAN, 1, sound))[0, [0, 2]].isfinite.all?).to be_truthy unless made.pointwise?

      Mordant::Colour::WorkingSpace.all.each { |space| expect_defined(Mordant::Pointwise::Chain.new(made.operations(space)), odd, sound) }
    end
  end

  it "are defined in lattices, curves, half tables, gamut limits and compression" do
    identity = Mordant::Lut::Lattice.new(Mordant::Lut::Lattice.nodes(5).transpose.dup, size: 5)
    curve = Mordant::Lut::Curve1d.new(Numo::DFloat[[0, 0, 0], [1, 1, 1]]).curve
    halves = Mordant::Pointwise::Curve.new(Mordant::Lut::HalfTable.columns(Numo::DFloat.zeros(65_536, 3)), domain: Mordant::Pointwise::Curve::DIRECT)
    [[identity], [identity.interpolated(:trilinear)], [curve], [halves], Mordant::Colour::GamutLimit.fetch("bt709").operations,
      [Mordant::Colour::ACES::GamutCompression.new], [Mordant::Colour::ACES::GamutCompression.new(inverse: true)]].each do |operations|
      expect_defined(Mordant::Pointwise::Chain.new(operations), odd, sound)
    end
  end

  it "leave every view a code that a file can hold" do
    frame = picture(Float::NAN, 0, sound)
    odd.each_value.with_index { |value, index| frame[index % 3, 1] = value }
    %w[acescct acescg display].each do |id|
      output = Mordant::Grade::Output.for(Mordant::Grade::View::STANDARD, Mordant::Colour::WorkingSpace.fetch(id))
      made = output.run(Mordant::Frame.new(frame, width: 3, height: 1, encoding: output.space.log))
      expect(Mordant::Media::Integers.interleave(made, 16).to_a.flatten).to all(be_between(0, 65_535))
    end
  end
end
