# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Steps::Balance do
  subject do
    described_class.new({exposure: 0.5, contrast: 1.2, temperature: 12, tint: -4, saturation: 1.3, lift: [0.02, 0, 0.01, 0],
                         gamma: [1.1, 1, 1, 0.95], gain: [1.05, 1, 0.98, 1], offset: [-0.01, 0, 0, 0.01]})
  end

  let(:space) { Mordant::Colour::WorkingSpace.default }

  include_examples "a pointwise step"

  def apply(light, **parameters)
    code = space.transfer.encode(Numo::DFloat[*light])
    chain = Mordant::Pointwise::Chain.new(described_class.new(parameters).operations(space))
    chain.exact(code.reshape(3, 1))[true, 0].then { |out| space.transfer.decode(out.dup).to_a }
  end

  def tone(parameters, at)
    code = Numo::DFloat[[at], [at], [at]] * (space.white - space.black) + space.black
    out = Mordant::Pointwise::Chain.new(described_class.new(parameters).operations(space)).exact(code)
    ((out[0, 0] - space.black) / (space.white - space.black))
  end

  it "doubles light for a stop of exposure" do
    expect(apply([0.18, 0.02, 3.0], exposure: 1.0)).to match_array([0.36, 0.04, 6.0].map { |x| be_within(1e-9 + x * 1e-6).of(x) })
  end

  it "puts red over blue by 0.02 stops a point of temperature, grey keeping its luminance" do
    red, green, blue = apply([0.18, 0.18, 0.18], temperature: 50)
    expect(Math.log2(red / blue)).to be_within(1e-6).of(1.0)
    luminance = [red, green, blue].zip(space.luminance_weights).sum { |x, w| x * w }
    expect(luminance).to be_within(1e-7).of(0.18)
  end

  it "puts green over red and blue by 0.02 stops a point of tint" do
    red, green, blue = apply([0.18, 0.18, 0.18], tint: 50)
    expect(Math.log2(green / red)).to be_within(1e-6).of(1.0)
    expect(red).to be_within(1e-9).of(blue)
  end

  it "leaves the black that was set where it is when temperature and tint move" do
    set = {offset: [-0.12, 0.01, 0, -0.02], contrast: 1.3}
    black = described_class.new(set).send(:tone, space).first.functions.map { |curve| curve.send(:black_light) }
    still, moved = [{}, {temperature: 60, tint: -30}].map { |white| apply(black, **set, **white) }
    expect(still).to match_array([be_within(1e-9).of(0.0)] * 3)
    expect(moved).to match_array([be_within(1e-9).of(0.0)] * 3)
    bright = [still, moved].map { apply([1.0, 1.0, 1.0], **set) }
    expect(apply([1.0, 1.0, 1.0], **set, temperature: 60)[0]).to be > bright[0][0] * 1.2
  end

  it "moves black by lift, white by gain, the middle by gamma, all alike by offset" do
    expect([tone({lift: [0.1, 0, 0, 0]}, 0.0), tone({lift: [0.1, 0, 0, 0]}, 1.0)]).to match([be_within(1e-9).of(0.1), be_within(1e-9).of(1.0)])
    expect([tone({gain: [1.2, 1, 1, 1]}, 0.0), tone({gain: [1.2, 1, 1, 1]}, 1.0)]).to match([be_within(1e-9).of(0.0), be_within(1e-9).of(1.2)])
    expect([0.0, 1.0].map { |t| tone({gamma: [1.5, 1, 1, 1]}, t) }).to match([be_within(1e-9).of(0.0), be_within(1e-9).of(1.0)])
    expect(tone({gamma: [2.0, 1, 1, 1]}, 0.25)).to be_within(1e-9).of(0.5)
    expect([0.2, 0.8].map { |t| tone({offset: [0.05, 0, 0, 0]}, t) - t }).to all(be_within(1e-9).of(0.05))
  end

  it "turns contrast about the pivot" do
    codes = [space.encode(0.18), space.encode(0.72)]
    out = codes.map { |code| Mordant::Pointwise::Chain.new(described_class.new({contrast: 1.5, pivot: 0.0}).operations(space)).exact(Numo::DFloat[[code]] * Numo::DFloat.ones(3, 1))[0, 0] }
    expect(out[0]).to be_within(1e-12).of(codes[0])
    expect(out[1] - out[0]).to be_within(1e-9).of(1.5 * (codes[1] - codes[0]))
  end

  it "leaves grey alone with saturation, and no colour at 0" do
    step = described_class.new({saturation: 0.0})
    out = step.apply(Numo::SFloat[[0.4, 0.6], [0.4, 0.3], [0.4, 0.2]])
    expect(out[true, 0].to_a).to all(be_within(1e-6).of(0.4))
    expect(out[true, 1].max - out[true, 1].min).to be < 1e-6
  end

  it "gives light by printer points, twelve to the stop" do
    expect(apply([0.18, 0.18, 0.18], printer: [12, 0, 0, 0])).to all(be_within(1e-6).of(0.36))
    red, green, = apply([0.18, 0.18, 0.18], printer: [0, -12, 0, 0])
    expect([red, green]).to match([be_within(1e-6).of(0.09), be_within(1e-6).of(0.18)])
  end

  it "makes black and white of the tones that are said" do
    set = {black: 0.1, white: 0.8}
    expect([0.1, 0.8, 0.45].map { |at| tone(set, at) }).to match([0.0, 1.0, 0.5].map { |x| be_within(1e-9).of(x) })
    expect(tone({black: 0.1, white: 0.8, lift: [0.05, 0, 0, 0]}, 0.1)).to be_within(1e-9).of(0.05)
    still, moved = [{}, {temperature: 60}].map { |white| apply([space.decode(space.black + 0.1 * (space.white - space.black))] * 3, **set, **white) }
    expect(moved).to match(still.map { |x| be_within(1e-9).of(x) })
    expect { described_class.new({black: 0.5, white: 0.4}, path: "p") }.to raise_error(Mordant::ParameterError, /p.white: expected a white point/)
  end

  # Bars: full-strength primaries and their complements, on log codes.
  bars = [[0.7, 0.7, 0.7], [0.7, 0.7, 0.3], [0.3, 0.7, 0.7], [0.3, 0.7, 0.3], [0.7, 0.3, 0.7], [0.7, 0.3, 0.3], [0.3, 0.3, 0.7]]

  def saturated(rows, model) = Mordant::Pointwise::Chain.new(described_class.new({saturation: 1.5, model:}).operations(space)).exact(Numo::DFloat.cast(rows).transpose.dup).transpose.to_a

  it "keeps luma with plain saturation, the largest channel with value, and weak colours with strong" do
    luma = ->(row) { row.zip(space.luminance_weights).sum { |x, w| x * w } }
    saturated(bars, "plain").zip(bars).each { |made, bar| expect([luma[made], made.max - made.min]).to match([be_within(1e-9).of(luma[bar]), be_within(1e-9).of((bar.max - bar.min) * 1.5)]) }
    saturated(bars, "value").zip(bars).each { |made, bar| expect([made.max, made.min]).to match([be_within(1e-12).of(bar.max), be_within(1e-12).of(bar.max - (bar.max - bar.min) * 1.5)]) }
    expect(saturated(bars, "strong")).to match_rows(saturated(bars, "plain"), absolute: 1e-9) # all of them are strong
    weak = [[0.52, 0.5, 0.5]]
    expect(saturated(weak, "strong")[0].then { |row| row.max - row.min }).to be_within(1e-9).of(0.02 * 1.04)
    expect(%w[plain value strong].map { |model| saturated([[0.4] * 3], model)[0] }).to all(match([be_within(1e-12).of(0.4)] * 3))
  end

  it "answers its own tone curve for an interface" do
    expect(described_class.neutral.tone_samples(space, count: 5)).to match_array([0.0, 0.25, 0.5, 0.75, 1.0].map { |t| be_within(1e-9).of(t) })
    expect(described_class.new({offset: [0.1, 0, 0, 0]}).tone_samples(space, count: 3)[1]).to be_within(1e-9).of(0.6)
  end

  it "has a handle for every stave and zone, whose directions do not disturb each other" do
    expect(described_class.handles.size).to eq(12)
    directions = described_class::DIRECTIONS.values_at(:warmth, :tint)
    expect(directions[0].zip(directions[1]).sum { |a, b| a * b }).to eq(0.0)
    expect(described_class.handles.map { |handle| handle[:parameter] }.uniq).to all(satisfy { |name| described_class.parameters.key?(name) })
  end
end
