# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Steps::Gate do
  let(:size) { [192, 108] }
  let(:rows) { 14 } # of each bar

  # Waves of light between black bars.
  def codes(bars: rows, width: size[0], height: size[1])
    x, y = Numo::SFloat.new(1, width).seq / width, Numo::SFloat.new(height, 1).seq / height
    wave = Numo::NMath.sin(x * 40 + y * 3) * 9000 + 30_000
    [0...bars, (height - bars)...height].each { |range| wave[range, true] = 4096 } if bars.positive?
    Mordant::Media::Codes.new(Numo::UInt16.cast(Numo::NArray.vstack([wave.reshape(1, width * height)] * 3)), width:, height:)
  end

  def plan(values, frame, seed = [7, frame])
    recipe = Mordant::Grade::Recipe.new("steps" => [{"id" => "g", "kind" => "gate", "parameters" => values.transform_keys(&:to_s)}])
    Mordant::Grade::Plan.new(recipe: recipe.sown { seed }.at(frame), source: "srgb", space: Mordant::Colour::WorkingSpace.fetch("acescg"))
  end

  def light(values, frame = 0, picture: codes, seed: [7, frame]) = plan(values, frame, seed).run(picture).rgb.reshape(3, picture.height, picture.width)

  let(:plain) { light({}) }
  let(:all) { {amount: 1.0, weave: 0.01, flicker: 0.2, tint: 6.0, dust: 30.0, dust_size: 0.01, scratches: 6.0, edge: 0.04} }

  it "is nothing as added and with no amount, and shows little as it begins" do
    expect([described_class.new({}).neutral?, described_class.new(all.merge(amount: 0)).neutral?]).to eq([true, true])
    expect(light(all.merge(amount: 0.0))).to eq(plain)
    change = Numo::NMath.log2(light({amount: 1.0})[true, rows...-rows, true] / plain[true, rows...-rows, true]).abs
    expect(change.mean).to be_between(0.0005, 0.06)
  end

  it "keeps every bit of bars, and of what lies beyond a mask" do
    (0..5).each do |frame|
      made = light(all, frame)
      expect(made[true, 0...rows, true]).to eq(plain[true, 0...rows, true])
      expect(made[true, -rows..-1, true]).to eq(plain[true, -rows..-1, true])
      expect((made - plain).abs[true, rows...-rows, true].max).to be > 0.05
    end
    open = codes(bars: 0)
    masked, before = light(all.merge(ratio: 2.4), picture: open), light({}, picture: open)
    covered = (size[1] - (size[0] / 2.4).round) / 2
    expect(masked[true, 0...covered, true]).to eq(before[true, 0...covered, true])
    expect(masked[true, covered, true]).not_to eq(before[true, covered, true])
  end

  it "takes no dark sky for a bar, nor a dark side of both" do
    night = codes(bars: 0).rgb.reshape(3, size[1], size[0])
    night[true, 0...30, true] = 4096
    expect(Mordant::Grade::Moment.of(Mordant::Media::Codes.new(night.reshape(3, size.reduce(:*)), width: size[0], height: size[1])).active.height).to eq(size[1])
    pillars = codes(bars: 0).rgb.reshape(3, size[1], size[0])
    [0...9, -10..-1].each { |columns| pillars[true, true, columns] = 4096 }
    expect(Mordant::Grade::Moment.of(Mordant::Media::Codes.new(pillars.reshape(3, size.reduce(:*)), width: size[0], height: size[1])).active.to_a).to eq([9, 0, size[0] - 18, size[1]])
    expect(Mordant::Grade::Moment.of(codes).active.to_a).to eq([0, rows, size[0], size[1] - 2 * rows])
  end

  it "weaves by a distance that its seed says, never beyond three times what is set" do
    spans = (0..40).map { |frame| Mordant::Film::Chance.new("gate", 7).swaying(frame, "across") }
    expect(spans.map(&:abs).max).to be <= 3.0
    expect(spans.each_cons(2).map { |a, b| (a - b).abs }.sum / 40).to be < 0.7 # sways, does not jump
    picture = codes(bars: 0)
    frame = spans.each_index.max_by { |at| spans[at].abs }
    made, before = [{amount: 1.0, weave: 0.02, flicker: 0, tint: 0, dust: 0}, {}].map { |values| light(values, frame, picture:)[0, 50, true] }
    by = 0.02 * size[1] * spans[frame]
    places = Numo::DFloat.new(120).seq + 30 - by
    low = Numo::Int32.cast(places.floor)
    straight = before[low] * (places - low).-(1).abs + before[low + 1] * (places - low)
    expect((made[30...150] - straight).abs.max).to be < 0.1 * (made[30...150] - before[30...150]).abs.max
  end

  it "differs from frame to frame and from clip to clip, and is the same again" do
    expect(light(all, 2)).to eq(light(all, 2))
    expect(light(all, 2)).not_to eq(light(all, 3))
    expect(light(all, 2)).not_to eq(light(all, 2, seed: [8, 2]))
  end

  it "looks on a proxy as on the master" do
    large, small = [4, 1].map { |times| codes(bars: rows * times, width: size[0] * times, height: size[1] * times) }
    values = all.merge(dust: 12.0, dust_size: 0.02, scratches: 3.0)
    reduced = light(values, 4, picture: large).reshape(3, size[1], 4, size[0], 4).mean(axis: 4).mean(axis: 2)
    change = (reduced - light({}, 4, picture: large).reshape(3, size[1], 4, size[0], 4).mean(axis: 4).mean(axis: 2))
    own = light(values, 4, picture: small) - light({}, 4, picture: small)
    expect((change - own).abs.mean).to be < 0.15 * own.abs.mean + 0.002
  end

  it "meets itself in windows" do
    moment = Mordant::Grade::Moment.of(codes)
    whole = plan(all, 5).run(codes).rgb.reshape(3, size[1], size[0])
    [[0, 0, 70, 60], [61, 33, 90, 50]].each do |left, top, width, height|
      part = plan(all, 5).picture(moment.at(Mordant::Grade::Window.new(left:, top:, width:, height:))).rgb.reshape(3, height, width)
      expect((part - whole[true, top...(top + height), left...(left + width)]).abs.max).to be < 2e-6
    end
  end

  it "has as many specks in the mean as it is told" do
    chance = Mordant::Film::Chance.new("gate", 1)
    counts = (0...400).map { |frame| chance.count(3.0, "specks", frame) }
    expect(counts.sum / 400.0).to be_within(0.25).of(3.0)
    expect(counts.sum { |one| (one - 3.0)**2 } / 400.0).to be_within(0.6).of(3.0)
  end
end
